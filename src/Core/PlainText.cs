using System.Globalization;
using System.Text;

namespace UnrulyMeadow.Core;

/// <summary>
/// The one rule for what people type and files bring: well-formed Unicode, no control characters, no noncharacters, a length
/// that counts what a reader sees as one character. (Composed form, NFC, is made by the database as it takes a text.)
/// </summary>
public static class PlainText
{
    // What a reader sees as one character may be put together from several; a heap of marks on one letter is no word.
    private const int MostUnitsPerCharacter = 10;

    /// <summary>What is wrong with a text; null when nothing is.</summary>
    /// <param name="text">The text.</param>
    /// <param name="longest">Most characters as a reader counts them (grapheme clusters, Unicode Standard Annex 29).</param>
    /// <param name="lines">True where tabs and line breaks are allowed.</param>
    public static string? Fault(string text, int longest, bool lines)
    {
        if (text.Length > longest && Length(text) is var length && (length > longest || text.Length > longest * MostUnitsPerCharacter))
            return length > longest ? $"must be at most {longest:#,0} characters (it has {length:#,0})" : "heaps too many marks on its letters";
        for (int i = 0; i < text.Length; )
        {
            if (Rune.DecodeFromUtf16(text.AsSpan(i), out Rune rune, out int units) != System.Buffers.OperationStatus.Done)
                return "holds half a character, as from a damaged file; type it anew";
            if (!IsAllowed(rune, lines))
                return lines || rune.Value is not ('\n' or '\r' or '\t')
                    ? $"must not hold control characters (U+{rune.Value:X4} at {i + 1})"
                    : "must be one line without tabs";
            i += units;
        }
        return null;
    }

    /// <summary>Characters as a reader counts them.</summary>
    public static int Length(string text) => new StringInfo(text).LengthInTextElements;

    /// <summary>The beginning of a text, never through the middle of what a reader sees as one character.</summary>
    /// <param name="text">The text.</param>
    /// <param name="mostUnits">Most UTF-16 units, one of them for the ellipsis of a text that was cut.</param>
    public static string Cut(string text, int mostUnits)
    {
        if (text.Length <= mostUnits)
            return text;
        int end = 0;
        for (int next; (next = end + StringInfo.GetNextTextElementLength(text, end)) < mostUnits; )
            end = next;
        return text[..end] + "…";
    }

    /// <summary>The text with what is not allowed taken out: half characters and noncharacters become U+FFFD, control characters a space.</summary>
    /// <param name="text">Any text.</param>
    /// <param name="lines">True where tabs and line breaks are allowed.</param>
    /// <returns>The same object when nothing was wrong.</returns>
    public static string Mended(string text, bool lines = true)
    {
        if (IsPlain(text, lines))
            return text;
        var mended = new StringBuilder(text.Length);
        foreach (Rune rune in text.EnumerateRunes())
        {
            if (IsAllowed(rune, lines))
                mended.Append(rune);
            else
                mended.Append(rune.Value < 0xA0 ? ' ' : '\uFFFD');
        }
        return mended.ToString();
    }

    // Nearly every text is Latin without controls: told without decoding.
    private static bool IsPlain(string text, bool lines)
    {
        foreach (char c in text)
        {
            bool plain = c is >= ' ' and < '\u007F' or >= '\u00A0' and < '\uD800' || (lines && c is '\n' or '\r' or '\t');
            if (!plain)
                return Fault(text, int.MaxValue / MostUnitsPerCharacter, lines) is null;
        }
        return true;
    }

    private static bool IsAllowed(Rune rune, bool lines) =>
        rune.Value switch
        {
            '\n' or '\r' or '\t' => lines,
            < ' ' or (>= 0x7F and < 0xA0) => false,
            >= 0xFDD0 and <= 0xFDEF => false,
            var v => (v & 0xFFFE) != 0xFFFE,
        };
}
