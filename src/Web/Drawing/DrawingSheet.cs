using System.Globalization;
using System.Text;
using System.Xml.Linq;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>Makes a drawing a file of its own: with its namespace, its colours and its words' type.</summary>
public sealed class DrawingSheet(IWebHostEnvironment environment)
{
    private const double SmallestPx = 900;

    private readonly Lazy<string> _style = new(() =>
    {
        string css(string name)
        {
            using var reader = new StreamReader(environment.WebRootFileProvider.GetFileInfo($"css/{name}.css").CreateReadStream());
            return reader.ReadToEnd();
        }
        string drawings = css("drawings");
        foreach (string line in css("meadow").Split('\n').Where(l => l.TrimStart().StartsWith("--", StringComparison.Ordinal)))
        {
            string[] pair = line.Trim().TrimEnd(';').Split(':', 2);
            drawings = drawings.Replace($"var({pair[0]})", pair[1].Trim(), StringComparison.Ordinal);
        }
        return "text{font-family:'Libre Franklin',Arial,sans-serif;}" + drawings;
    });

    /// <summary>The drawing as a file.</summary>
    public byte[] Standalone(XElement drawing)
    {
        XNamespace svg = "http://www.w3.org/2000/svg";
        XElement root = Named(drawing, svg);
        string[] box = ((string?)root.Attribute("viewBox") ?? "0 0 100 100").Split(' ');
        // Drawings whose unit is a metre would open no larger than a stamp.
        double width = double.Parse(box[2], CultureInfo.InvariantCulture);
        double larger = Math.Max(1, SmallestPx / width);
        root.SetAttributeValue("width", Figure.N(width * larger));
        root.SetAttributeValue("height", Figure.N(double.Parse(box[3], CultureInfo.InvariantCulture) * larger));
        root.AddFirst(new XElement(svg + "style", _style.Value));
        return Encoding.UTF8.GetBytes(new XDocument(Figure.Plain(root)).ToString());
    }

    private static XElement Named(XElement element, XNamespace name) =>
        new(name + element.Name.LocalName, element.Attributes(), element.Nodes().Select(n => n is XElement child ? Named(child, name) : n));
}
