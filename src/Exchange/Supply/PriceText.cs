using System.Globalization;
using System.Text.RegularExpressions;

namespace UnrulyMeadow.Exchange.Supply;

/// <summary>Prices as price lists write them: with signs and letters of a currency, decimal commas, thousands, "per 100".</summary>
public static partial class PriceText
{
    /// <summary>Reads a price.</summary>
    /// <param name="text">The cell.</param>
    /// <returns>The price, and of how many plants it is the price, 1 where it is a pack's; null where there is no price in it.</returns>
    public static (decimal Price, int Per)? Read(string text)
    {
        Match found = Price().Match(text.Replace('\u00a0', ' ').Replace('\u202f', ' '));
        if (!found.Success || Number(found.Groups["number"].Value) is not { } price)
            return null;
        int per = 1;
        if (
            found.Groups["per"].Success
            && (!int.TryParse(found.Groups["per"].Value, NumberStyles.None, CultureInfo.InvariantCulture, out per) || per == 0)
        )
            return null;
        return (price, per);
    }

    // "1.234,50", "1,234.50", "12,5", "1 234.00": the last mark parts the decimals, unless three digits follow a single one.
    private static decimal? Number(string typed)
    {
        string digits = typed.Replace(" ", string.Empty, StringComparison.Ordinal).Replace("'", string.Empty, StringComparison.Ordinal);
        int last = digits.LastIndexOfAny([',', '.']);
        if (last >= 0)
        {
            bool isAlone = digits.IndexOfAny([',', '.']) == last;
            bool partsThousands =
                digits.Length - last - 1 == 3 && (isAlone ? digits[..last] != "0" : digits.IndexOf(digits[last], StringComparison.Ordinal) != last);
            string whole = digits[..last].Replace(",", string.Empty, StringComparison.Ordinal).Replace(".", string.Empty, StringComparison.Ordinal);
            digits = partsThousands ? whole + digits[(last + 1)..] : $"{whole}.{digits[(last + 1)..]}";
        }
        return decimal.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out decimal value) ? value : null;
    }

    [GeneratedRegex(
        @"^\s*(?:[\p{Sc}]|[A-Za-z]{1,4}\.?)?\s*(?<number>\d[\d .,']*\d|\d)\s*(?:[\p{Sc}]|[A-Za-z]{3})?\s*(?:(?:/|per|a|je)\s*(?<per>\d{1,5})?\s*)?(?:packs?|pcs|each|unit|plants?|bulbs?)?\s*$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex Price();
}
