using System.Text.Encodings.Web;
using System.Text.Json;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Hostile;

/// <summary>Requests that once broke something, sent again: each is answered below 500, and every page loads after it.</summary>
public sealed class StoredCases(HostileApp app) : IClassFixture<HostileApp>
{
    internal static readonly JsonSerializerOptions Form = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.Default,
    };

    public static TheoryData<string> Names =>
        [
            .. Directory
                .GetFiles(Path.Combine(AppContext.BaseDirectory, "cases"), "*.json")
                .Select(f => Path.GetFileNameWithoutExtension(f))
                .Order(StringComparer.Ordinal),
        ];

    [Theory]
    [MemberData(nameof(Names))]
    public async Task What_once_broke_something_breaks_nothing(string name)
    {
        List<Operation> operations = JsonSerializer.Deserialize<List<Operation>>(
            await File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "cases", $"{name}.json")),
            Form
        )!;
        await app.Restore();
        Attacker attacker = app.Attacker();
        foreach (Operation operation in operations)
        {
            Operation sent = operation;
            if (operation.Method == "POST")
            {
                // Its form as it stands now, with the case's fields in their places.
                string page = operation.Path.Split('?')[0];
                Outcome form = await attacker.Send(new Operation("GET", page));
                IReadOnlyList<Operation> forms = await Attacker.Forms(page, form.Body);
                Operation? own = forms.FirstOrDefault(f => f.Path == operation.Path)
                    ?? (
                        operation.Path.Contains('?', StringComparison.Ordinal)
                            ? null
                            : forms.FirstOrDefault(f => !f.Path.Contains("handler=", StringComparison.Ordinal))
                    );
                var fields = (own ?? forms[0]).Fields!.Where(f => own is not null || f[0] == "__RequestVerificationToken").ToList();
                foreach (string[] field in operation.Fields ?? [])
                {
                    fields.RemoveAll(f => f[0] == field[0]);
                    fields.Add(field);
                }
                sent = operation with { Fields = fields };
            }
            Outcome outcome = await attacker.Send(sent);
            Assert.False(Attacker.IsFailure(outcome), $"{operation}: {outcome.Code} in {outcome.Took.TotalSeconds:0.0} s");
        }
        LoadedPlan now = await app.Plans.Now();
        Assert.Empty(now.Aside);
        Assert.Empty(await Walk.Failures(attacker, app.Doors, now.Plan, 2));
    }
}
