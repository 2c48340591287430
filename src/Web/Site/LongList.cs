using Microsoft.AspNetCore.Http.Extensions;
using UnrulyMeadow.Core;

namespace UnrulyMeadow.Web.Site;

/// <summary>An order that a long list can be put in.</summary>
/// <param name="By">What the address calls it.</param>
/// <param name="Said">What the page calls it.</param>
/// <param name="Sort">Puts rows in it.</param>
public sealed record ListOrder<T>(string By, string Said, Func<IEnumerable<T>, IEnumerable<T>> Sort);

/// <summary>What is asked of a long list, and the part of it that is shown: the words, the order and the part stand in the address.</summary>
/// <param name="name">What the list is remembered by in a browser.</param>
/// <param name="prefix">What the address puts before its words, order and part, where a page has more lists than one.</param>
/// <param name="all">How many rows there are before anything is looked for.</param>
/// <param name="part">The part shown of those found.</param>
/// <param name="find">Words looked for; empty for none.</param>
/// <param name="by">The order asked for; empty for the usual one.</param>
/// <param name="usual">The usual order, in words.</param>
/// <param name="orders">Other orders: what stands in the address, and in words.</param>
public abstract class LongList(
    string name,
    string prefix,
    int all,
    ListPage part,
    string find,
    string by,
    string usual,
    IReadOnlyList<(string By, string Said)> orders
)
{
    /// <summary>What the address calls the words looked for.</summary>
    public string FindKey { get; } = prefix + FindName;

    /// <summary>What the address calls the order.</summary>
    public string ByKey { get; } = prefix + ByName;

    /// <summary>What the list is remembered by in a browser.</summary>
    public string Name { get; } = name;

    /// <summary>How many rows there are before anything is looked for.</summary>
    public int All { get; } = all;

    /// <summary>The part shown.</summary>
    public ListPage Part { get; } = part;

    /// <summary>Words looked for; empty for none.</summary>
    public string Find { get; } = find;

    /// <summary>The order asked for; empty for the usual one.</summary>
    public string By { get; } = by;

    /// <summary>All orders: what stands in the address, and in words.</summary>
    public IReadOnlyList<(string By, string Said)> Orders { get; } = [(string.Empty, usual), .. orders];

    /// <summary>The order that it stands in, in words.</summary>
    public string Order => Orders.First(o => o.By == By).Said;

    /// <summary>True where other rows or another order than the usual were asked for.</summary>
    public bool IsAsked => Find.Length > 0 || By.Length > 0;

    /// <summary>True where the list does not stand whole on a page, so that the server looks and orders.</summary>
    public bool IsLong => All > Part.Size;

    /// <summary>What the table's own headings remember their order by, where it stands whole on a page; null where the server orders.</summary>
    public string? Rows => IsLong ? null : Name;

    /// <summary>What else the address says, which looking for other rows keeps.</summary>
    public IEnumerable<KeyValuePair<string, string>> Kept(HttpRequest request) =>
        request
            .Query.Where(q => q.Key != FindKey && q.Key != ByKey && q.Key != Part.Name && q.Key != "all")
            .SelectMany(q => q.Value, (q, value) => new KeyValuePair<string, string>(q.Key, value ?? string.Empty));

    /// <summary>The address of the whole list in its usual order.</summary>
    public string Whole(HttpRequest request) =>
        $"{request.PathBase}{request.Path}{new QueryBuilder(Kept(request)) { { "all", "yes" } }.ToQueryString()}";

    /// <summary>Looks for what the address asks, puts it in the order asked for and takes the part asked for.</summary>
    /// <param name="query">What the address asks.</param>
    /// <param name="name">What the list is remembered by in a browser.</param>
    /// <param name="all">All rows, in their usual order.</param>
    /// <param name="words">What a row is found by.</param>
    /// <param name="usual">The usual order, in words.</param>
    /// <param name="orders">Other orders.</param>
    /// <param name="size">Rows of one part.</param>
    /// <param name="prefix">What the address puts before its words, order and part, where a page has more lists than one.</param>
    public static LongList<T> Of<T>(
        IQueryCollection query,
        string name,
        IReadOnlyCollection<T> all,
        Func<T, string> words,
        string usual,
        IReadOnlyList<ListOrder<T>> orders,
        int size = ListPage.Rows,
        string prefix = ""
    )
    {
        string find = query[prefix + FindName].ToString();
        var search = new WordSearch(find);
        ListOrder<T>? order = orders.FirstOrDefault(o => o.By == query[prefix + ByName].ToString());
        IReadOnlyCollection<T> found = search.IsEmpty ? all : [.. all.Where(r => search.Match(words(r)) is not null)];
        ListPage part = ListPage.Of(found.Count, query[prefix + PartName].ToString(), size, prefix + PartName);
        return new LongList<T>(
            name,
            prefix,
            all.Count,
            part,
            find.Trim(),
            order?.By ?? string.Empty,
            usual,
            [.. orders.Select(o => (o.By, o.Said))],
            [.. part.Take(order is null ? found : order.Sort(found))]
        );
    }

    /// <summary>The words' key without a prefix.</summary>
    private const string FindName = "q";

    /// <summary>The order's key without a prefix.</summary>
    private const string ByName = "by";

    /// <summary>The part's key without a prefix.</summary>
    private const string PartName = "part";
}

/// <summary>The fields by which a long list is looked through.</summary>
/// <param name="List">The list.</param>
/// <param name="Hint">What its words find, said in the empty field.</param>
/// <param name="Form">The id of the form that the fields belong to, where they stand within another one.</param>
public sealed record LongListControls(LongList List, string Hint, string? Form = null);

/// <summary>A long list with the rows that its page shows.</summary>
public sealed class LongList<T> : LongList
{
    internal LongList(
        string name,
        string prefix,
        int all,
        ListPage part,
        string find,
        string by,
        string usual,
        IReadOnlyList<(string By, string Said)> orders,
        IReadOnlyList<T> shown
    )
        : base(name, prefix, all, part, find, by, usual, orders) => Shown = shown;

    /// <summary>The rows shown.</summary>
    public IReadOnlyList<T> Shown { get; }
}
