using System.Security.Cryptography;
using System.Text;

namespace UnrulyMeadow.Core;

/// <summary>Short names that stand in files and addresses: lower-case letters, digits and single hyphens.</summary>
public static class Ids
{
    /// <summary>Most characters an id may have.</summary>
    public const int Longest = 60;

    /// <summary>The rule in words.</summary>
    public const string Rule = "must be of lower-case letters, digits and single hyphens, at most 60 characters";

    // Accents of the Latin-1 range; the invariant culture does not decompose them.
    private const string Accented = "àáâãäåçèéêëìíîïñòóôõöøùúûüýÿ";
    private const string Plain = "aaaaaaceeeeiiiinoooooouuuuyy";

    /// <summary>True for a well-formed id.</summary>
    public static bool IsValid(string? id) =>
        id is { Length: > 0 and <= Longest }
        && id[0] != '-'
        && id[^1] != '-'
        && !id.Contains("--", StringComparison.Ordinal)
        && id.All(c => c is (>= 'a' and <= 'z') or (>= '0' and <= '9') or '-');

    /// <summary>Makes an id from a name for people; "planter" when nothing usable is left.</summary>
    /// <param name="name">Any text.</param>
    /// <param name="isTaken">Tells whether an id is in use; a number is added until one is free.</param>
    public static string From(string name, Func<string, bool> isTaken)
    {
        var text = new StringBuilder();
        foreach (char letter in name.ToLowerInvariant())
        {
            int accent = Accented.IndexOf(letter, StringComparison.Ordinal);
            char c = accent < 0 ? letter : Plain[accent];
            if (c is (>= 'a' and <= 'z') or (>= '0' and <= '9'))
                text.Append(c);
            else if (text.Length > 0 && text[^1] != '-' && !char.IsControl(c) && (char.IsWhiteSpace(c) || char.IsPunctuation(c) || char.IsSymbol(c)))
                text.Append('-');
        }
        string stem = text.ToString().Trim('-');
        if (stem.Length == 0)
            stem = "planter";
        if (stem.Length > Longest - 5)
            stem = stem[..(Longest - 5)].Trim('-');
        string id = stem;
        for (int n = 2; isTaken(id); n++)
            id = $"{stem}-{n}";
        return id;
    }

    /// <summary>A short fingerprint of a text: the same for the same text, on any machine and day.</summary>
    /// <param name="text">Any text.</param>
    /// <param name="digits">Hexadecimal digits, 1 to 64.</param>
    public static string Fingerprint(string text, int digits) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..digits];
}
