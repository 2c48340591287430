using System.Text;

namespace UnrulyMeadow.Hostile;

/// <summary>What nobody means to type and somebody will.</summary>
public static class Corpus
{
    private static readonly string[] Texts =
    [
        string.Empty,
        " ",
        "\0",
        "a\0b",
        "\u0001",
        "x\u0008y",
        "\u001b[31m",
        "\u007f",
        "\u0085",
        "\uFFFE",
        "x\uFFFFy",
        "\uFDD0",
        "\uD800",
        "\uDC00x",
        "🌷\uD83C",
        "\u2028",
        "\u202Eabc",
        "\u200B",
        "'=1+1",
        "=cmd|' /C calc'!A0",
        "-",
        "'-",
        "\"",
        "\"\"",
        "a\nb",
        "a\r\nb",
        "\n",
        "\t",
        ",",
        ";",
        "<script>alert(1)</script>",
        "'; drop table planter; --",
        "{{7*7}}",
        "${jndi:x}",
        "%00",
        "%n%s",
        "../../etc/passwd",
        "\\\\host\\x",
        "e\u0301",
        "Å",
        "ﬁ",
        "ß",
        "İ",
        "👩‍👩‍👧‍👦",
        "Z\u0335\u0321\u0327\u0322\u0321\u0328\u0334\u0322\u0321",
        "null",
        "undefined",
        "true",
        "[]",
        "{}",
        "NaN",
        "new",
        "handler",
    ];

    private static readonly string[] Numbers =
    [
        "0",
        "-0",
        "-1",
        "1",
        "2",
        "3",
        "0.1",
        "1e300",
        "-1e300",
        "1e-300",
        "NaN",
        "Infinity",
        "-Infinity",
        "∞",
        "١٢",
        "1,5",
        "1.000,5",
        "0x10",
        "999999999999999999999999",
        "2147483647",
        "2147483648",
        "-2147483648",
        "9223372036854775807",
        "9223372036854775808",
        "79228162514264337593543950335",
        "1_000",
        " 7 ",
        "+5",
        "1e2",
        "10000",
        "100000",
        "150",
        "0.0000001",
    ];

    private static readonly string[] Days =
    [
        "2027-04-14",
        "2026-11-23",
        "2028-02-29",
        "2027-02-29",
        "2026-13-01",
        "0001-01-01",
        "9999-12-31",
        "-9998-01-01",
        "1949-12-31",
        "1950-01-01",
        "2150-12-31",
        "2151-01-01",
        "2199-12-31",
        "2200-12-31",
        "1900-01-01",
        "tomorrow",
        "14.4.2027",
        "2027-4-14",
        "2027-04-14T00:00:00Z",
    ];

    /// <summary>A value that may stand anywhere.</summary>
    public static string Value(Random random) =>
        random.Next(10) switch
        {
            < 4 => Texts[random.Next(Texts.Length)],
            < 6 => Numbers[random.Next(Numbers.Length)],
            < 8 => Days[random.Next(Days.Length)],
            8 => string.Concat(Enumerable.Range(0, random.Next(1, 6)).Select(_ => Texts[random.Next(Texts.Length)])),
            _ => new string("aé🌷'\n"[random.Next(5)], random.Next(4) == 0 ? random.Next(1, 200_000) : random.Next(1, 700)),
        };

    /// <summary>A file changed in some places: bytes, lines, tokens.</summary>
    public static byte[] Changed(byte[] file, Random random)
    {
        byte[] bytes = [.. file];
        int times = 1 + random.Next(4);
        for (int t = 0; t < times && bytes.Length > 0; t++)
        {
            int at = random.Next(bytes.Length);
            int length = Math.Min(bytes.Length - at, 1 + random.Next(64));
            switch (random.Next(9))
            {
                case 0:
                    bytes[at] = (byte)random.Next(256);
                    break;
                case 1:
                    bytes = bytes[..at];
                    break;
                case 2:
                    bytes = [.. bytes[..at], .. bytes[(at + length)..]];
                    break;
                case 3:
                    bytes = [.. bytes[..(at + length)], .. bytes[at..]];
                    break;
                case 4:
                    bytes = [.. bytes[..at], .. Encoding.UTF8.GetBytes(Value(random)), .. bytes[at..]];
                    break;
                default:
                    bytes = Token(bytes, at, random);
                    break;
            }
        }
        return bytes;
    }

    // A whole value between two marks is put in the place of another: nulls, figures beyond all measure, half characters.
    private static byte[] Token(byte[] bytes, int at, Random random)
    {
        ReadOnlySpan<byte> marks = ",:[]{}\n\""u8;
        int from = at;
        while (from > 0 && !marks.Contains(bytes[from - 1]))
            from--;
        int to = at;
        while (to < bytes.Length && !marks.Contains(bytes[to]))
            to++;
        string[] values =
        [
            "null",
            "[null]",
            "{}",
            "[]",
            "1e300",
            "-1",
            "0",
            "99999999999999999999",
            "\"\\ud800\"",
            "\"\\u0000\"",
            "\"\\ufffe\"",
            "true",
            "\"9999-12-31\"",
            "\"-9998-01-01\"",
            "\"x\"",
            "\\ud800",
            "\u0001",
            Value(random),
        ];
        return [.. bytes[..from], .. Encoding.UTF8.GetBytes(values[random.Next(values.Length)]), .. bytes[to..]];
    }
}
