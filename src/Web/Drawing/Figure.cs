using System.Globalization;
using System.Xml.Linq;
using Microsoft.AspNetCore.Html;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Colour;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>Small words for drawing SVG. Text and attributes are encoded by the XML writer.</summary>
internal static class Figure
{
    /// <summary>A number as SVG wants it.</summary>
    public static string N(double v) => (Math.Round(v, 2) + 0.0).ToString(CultureInfo.InvariantCulture);

    /// <summary>An element with attributes given in pairs.</summary>
    public static XElement El(string name, params object?[] attributesAndChildren)
    {
        var element = new XElement(name);
        for (int i = 0; i < attributesAndChildren.Length; i++)
        {
            switch (attributesAndChildren[i])
            {
                case string attribute:
                    object? value = attributesAndChildren[++i];
                    element.SetAttributeValue(attribute, value is double d ? N(d) : value);
                    break;
                case XElement child:
                    element.Add(child);
                    break;
                case IEnumerable<XElement> children:
                    element.Add(children);
                    break;
            }
        }
        return element;
    }

    /// <summary>A text element.</summary>
    public static XElement Text(double x, double y, string cssClass, string text, string anchor = "start") =>
        new(
            "text",
            new XAttribute("x", N(x)),
            new XAttribute("y", N(y)),
            new XAttribute("class", cssClass),
            new XAttribute("text-anchor", anchor),
            text
        );

    /// <summary>A title, which screen readers read and a pointer shows.</summary>
    public static XElement Title(string text) => new("title", text);

    /// <summary>
    /// The drawing without characters that no drawing can hold: whatever a name from older days holds, it is drawn. Nothing is changed
    /// where all is well.
    /// </summary>
    public static XElement Plain(XElement element)
    {
        foreach (XText text in element.DescendantNodesAndSelf().OfType<XText>())
        {
            if (PlainText.Mended(text.Value) is var mended && !ReferenceEquals(mended, text.Value))
                text.Value = mended;
        }
        foreach (XAttribute attribute in element.DescendantsAndSelf().Attributes())
        {
            if (PlainText.Mended(attribute.Value) is var mended && !ReferenceEquals(mended, attribute.Value))
                attribute.Value = mended;
        }
        return element;
    }

    /// <summary>The drawing as it stands in a page.</summary>
    public static IHtmlContent Html(this XElement element) => new HtmlString(Plain(element).ToString(SaveOptions.DisableFormatting));

    /// <summary>A colour mixed with another, 0 the first, 1 the second.</summary>
    public static string Mix(string a, string b, double share)
    {
        int C(int at) =>
            (int)
                Math.Round(
                    (int.Parse(a.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) * (1 - share))
                        + (int.Parse(b.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) * share)
                );
        return $"#{C(1):x2}{C(3):x2}{C(5):x2}";
    }

    /// <summary>A calm outline for a colour: darker for pale ones, so that white flowers stand off the page.</summary>
    public static string Outline(string colour) => Srgb.Of(colour).Luminance > 0.6 ? Mix(colour, "#6b7360", 0.55) : Mix(colour, "#23281e", 0.3);

    /// <summary>A repeatable number from 0 to 1 for a place, so that edges are ragged but always the same.</summary>
    public static double Ragged(int seed, int i)
    {
        uint h = unchecked(((uint)seed * 2654435761u) ^ ((uint)i * 2246822519u));
        h ^= h >> 15;
        h *= 2246822519u;
        h ^= h >> 13;
        return (h & 0xffff) / 65535.0;
    }
}
