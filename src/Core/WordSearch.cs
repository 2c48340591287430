using System.Text;

namespace UnrulyMeadow.Core;

/// <summary>How well a thing answers the words that somebody typed.</summary>
public enum WordMatch
{
    /// <summary>As <see cref="InName"/>, and its name begins with the first word typed.</summary>
    NameBegins,

    /// <summary>Every word typed begins a word of its name.</summary>
    InName,

    /// <summary>Every word typed begins a word of its name or of what else is said of it.</summary>
    InText,
}

/// <summary>Finding by the beginnings of words: "witch" finds witch hazel and not switch grass. Case and accents make no difference.</summary>
public sealed class WordSearch
{
    private const string Accented = "àáâãäåāăąçćčďèéêëēęěģìíîïīķļłñńňņòóôõöøōőŕřśšşţťùúûüūůűųýÿźżž";
    private const string Bare = "aaaaaaaaacccdeeeeeeegiiiiikllnnnnoooooooorrsssttuuuuuuuuyyzzz";

    private readonly string[] _words;

    /// <summary>Reads what was typed.</summary>
    /// <param name="typed">Words parted by spaces; null or empty matches everything.</param>
    public WordSearch(string? typed)
    {
        _words = Plain(typed ?? string.Empty).Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
    }

    /// <summary>True when nothing was typed.</summary>
    public bool IsEmpty => _words.Length == 0;

    /// <summary>How well a thing answers; null when it does not.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="rest">What else is said of it.</param>
    public WordMatch? Match(string name, string rest = "")
    {
        (name, rest) = (Plain(name), Plain(rest));
        bool inName = true;
        foreach (string word in _words)
        {
            bool here = BeginsAWord(name, word);
            inName &= here;
            if (!here && !BeginsAWord(rest, word))
                return null;
        }
        return !inName ? WordMatch.InText
            : _words.Length == 0 || name.StartsWith(_words[0], StringComparison.OrdinalIgnoreCase) ? WordMatch.NameBegins
            : WordMatch.InName;
    }

    private static bool BeginsAWord(string text, string word)
    {
        for (
            int at = text.IndexOf(word, StringComparison.OrdinalIgnoreCase);
            at >= 0;
            at = text.IndexOf(word, at + 1, StringComparison.OrdinalIgnoreCase)
        )
        {
            if (at == 0 || !char.IsLetterOrDigit(text[at - 1]))
                return true;
        }
        return false;
    }

    // Letters without their accents; by a table, since the program runs without the data of any culture.
    private static string Plain(string text) => Ascii.IsValid(text) ? text : string.Create(text.Length, text, (plain, given) =>
            {
                for (int i = 0; i < given.Length; i++)
                    plain[i] = Accented.IndexOf(char.ToLowerInvariant(given[i]), StringComparison.Ordinal) is >= 0 and var at ? Bare[at] : given[i];
            });
}
