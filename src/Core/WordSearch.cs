namespace UnrulyMeadow.Core;

/// <summary>How well a thing answers the words that somebody typed.</summary>
public enum WordMatch
{
    /// <summary>Its name begins with all that was typed.</summary>
    NameBegins,

    /// <summary>Every word typed begins a word of its name.</summary>
    InName,

    /// <summary>Every word typed begins a word of its name or of what else is said of it.</summary>
    InText,
}

/// <summary>Finding by the beginnings of words: "witch" finds witch hazel and not switch grass. Case and accents make no difference.</summary>
public sealed class WordSearch
{
    private static readonly System.Globalization.CompareInfo Compare = System.Globalization.CultureInfo.InvariantCulture.CompareInfo;
    private const System.Globalization.CompareOptions Loosely =
        System.Globalization.CompareOptions.IgnoreCase | System.Globalization.CompareOptions.IgnoreNonSpace;

    private readonly string[] _words;
    private readonly string _all;

    /// <summary>Reads what was typed.</summary>
    /// <param name="typed">Words parted by spaces; null or empty matches everything.</param>
    public WordSearch(string? typed)
    {
        _words = (typed ?? string.Empty).Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        _all = string.Join(' ', _words);
    }

    /// <summary>True when nothing was typed.</summary>
    public bool IsEmpty => _words.Length == 0;

    /// <summary>How well a thing answers; null when it does not.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="rest">What else is said of it.</param>
    public WordMatch? Match(string name, string rest = "")
    {
        bool inName = true;
        foreach (string word in _words)
        {
            bool here = BeginsAWord(name, word);
            inName &= here;
            if (!here && !BeginsAWord(rest, word))
                return null;
        }
        return !inName ? WordMatch.InText
            : Compare.IsPrefix(name, _all, Loosely) ? WordMatch.NameBegins
            : WordMatch.InName;
    }

    private static bool BeginsAWord(string text, string word)
    {
        for (int from = 0; from < text.Length; from++)
        {
            int at = Compare.IndexOf(text, word, from, Loosely);
            if (at < 0)
                return false;
            if (at == 0 || !char.IsLetterOrDigit(text[at - 1]))
                return true;
            from = at;
        }
        return false;
    }
}
