using System.Collections;
using System.Globalization;
using System.Text;

namespace UnrulyMeadow.Web.Site;

/// <summary>A field in which what was typed differs from what somebody else has saved.</summary>
/// <param name="Field">The field, in words.</param>
/// <param name="Mine">What was typed here.</param>
/// <param name="Theirs">What is saved now.</param>
public sealed record FormDifference(string Field, string Mine, string Theirs)
{
    /// <summary>Every field in which two forms of the same kind differ.</summary>
    /// <param name="mine">The form as typed.</param>
    /// <param name="theirs">The form as it would be opened now.</param>
    public static IReadOnlyList<FormDifference> Between(object mine, object theirs)
    {
        var typed = new Dictionary<string, string>(StringComparer.Ordinal);
        var saved = new Dictionary<string, string>(StringComparer.Ordinal);
        Flatten(mine, string.Empty, typed);
        Flatten(theirs, string.Empty, saved);
        return
        [
            .. typed
                .Keys.Union(saved.Keys, StringComparer.Ordinal)
                .Select(k => new FormDifference(k, typed.GetValueOrDefault(k) ?? string.Empty, saved.GetValueOrDefault(k) ?? string.Empty))
                .Where(d => d.Mine != d.Theirs),
        ];
    }

    private static void Flatten(object? value, string path, Dictionary<string, string> fields)
    {
        switch (value)
        {
            case null:
                break;
            case string or bool or Enum or IFormattable:
                // Browsers send line breaks as two characters.
                string text = Convert.ToString(value, CultureInfo.InvariantCulture)!.Replace("\r\n", "\n", StringComparison.Ordinal).Trim();
                if (text.Length > 0)
                    fields[path] = text;
                break;
            case IDictionary pairs:
                foreach (DictionaryEntry pair in pairs)
                    Flatten(pair.Value, Joined(path, Words($"{pair.Key}")), fields);
                break;
            case IEnumerable items:
                int number = 0;
                foreach (object? item in items)
                    Flatten(item, Joined(path, $"{++number}"), fields);
                break;
            default:
                foreach (
                    var property in value
                        .GetType()
                        .GetProperties()
                        .Where(p => p.GetIndexParameters().Length == 0 && p.Name is not ("Version" or "DisplayId" or "Day"))
                )
                    Flatten(property.GetValue(value), Joined(path, Words(property.Name)), fields);
                break;
        }
    }

    private static string Joined(string path, string name) => path.Length == 0 ? name : $"{path} {name}";

    // TopLength reads "top length".
    private static string Words(string name)
    {
        var words = new StringBuilder();
        foreach (char c in name)
        {
            if (char.IsUpper(c) && words.Length > 0 && words[^1] != ' ')
                words.Append(' ');
            words.Append(char.ToLowerInvariant(c));
        }
        return words.ToString();
    }
}
