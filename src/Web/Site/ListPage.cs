using System.Globalization;
using Microsoft.AspNetCore.Http.Extensions;

namespace UnrulyMeadow.Web.Site;

/// <summary>The part of a long list that a page shows.</summary>
/// <param name="Total">How many there are.</param>
/// <param name="Number">Which part, from 1.</param>
/// <param name="Size">How many a part holds.</param>
/// <param name="Name">The name under which the address tells the part.</param>
public sealed record ListPage(int Total, int Number, int Size, string Name = "part")
{
    /// <summary>Rows that fit one part of a ledger.</summary>
    public const int Rows = 100;

    /// <summary>The part that an address asks for, within what there is.</summary>
    public static ListPage Of(int total, string? number, int size = Rows, string name = "part")
    {
        int last = Math.Max(1, (total + size - 1) / size);
        return new ListPage(
            total,
            int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out int n) ? Math.Clamp(n, 1, last) : 1,
            size,
            name
        );
    }

    /// <summary>How many parts there are.</summary>
    public int Parts => Math.Max(1, (Total + Size - 1) / Size);

    /// <summary>The first that is shown, from 1.</summary>
    public int First => Math.Min(Total, ((Number - 1) * Size) + 1);

    /// <summary>The last that is shown.</summary>
    public int Last => Math.Min(Total, Number * Size);

    /// <summary>The rows of this part.</summary>
    public IEnumerable<T> Take<T>(IEnumerable<T> all) => all.Skip((Number - 1) * Size).Take(Size);

    /// <summary>The address of another part of the same list.</summary>
    public string Address(HttpRequest request, int number)
    {
        var query = new QueryBuilder(request.Query.Where(q => q.Key != Name));
        if (number > 1)
            query.Add(Name, number.ToString(CultureInfo.InvariantCulture));
        return $"{request.PathBase}{request.Path}{query.ToQueryString()}";
    }
}
