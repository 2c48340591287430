using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Identity;
using UnrulyMeadow.Core;
using UnrulyMeadow.Store.People;

namespace UnrulyMeadow.Web.People;

/// <summary>People of a file, who sign in with a tap on the machine that the app runs on.</summary>
public static class TappingPeople
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter() } };

    private sealed record Entry(string Name, SiteRole Role, string? Language = null);

    /// <summary>Adds those who are not there yet, and settles what all of them may do.</summary>
    /// <returns>How many were added.</returns>
    /// <exception cref="InvalidInputException">The file is none of people.</exception>
    public static async Task<int> Bring(PeopleStore people, Guid site, Stream file)
    {
        IReadOnlyList<Entry> entries;
        try
        {
            entries = JsonSerializer.Deserialize<List<Entry>>(file, Json) ?? [];
        }
        catch (JsonException e)
        {
            throw new InvalidInputException("file", $"is no list of people: {e.Message}");
        }
        // The owner first: a site is never without.
        int added = 0;
        foreach (Entry entry in entries.OrderByDescending(e => e.Role))
        {
            string key = new UpperInvariantLookupNormalizer().NormalizeName(entry.Name);
            Person? known = await people.FindBySignIn(key);
            if (known is null)
            {
                known = new Person
                {
                    Id = Guid.CreateVersion7(),
                    Name = entry.Name,
                    SignIn = entry.Name,
                    SignInKey = key,
                    SecurityStamp = $"{Guid.NewGuid()}",
                    Taps = true,
                    IsSteward = entry.Role == SiteRole.Owner,
                    Language = entry.Language,
                };
                await people.Add(known);
                added++;
            }
            await people.Settle(site, known.Id, entry.Role);
        }
        return added;
    }
}
