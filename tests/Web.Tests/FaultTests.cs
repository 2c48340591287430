using System.Net;
using Npgsql;

namespace UnrulyMeadow.Web.Tests;

/// <summary>What is said when the database goes away under the running app.</summary>
public sealed class FaultTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    [Fact]
    public async Task A_database_that_does_not_answer_is_said_in_a_page_and_the_app_comes_back_with_it()
    {
        HttpClient browser = app.Browser();
        await browser.Open("/site");
        string name = new NpgsqlConnectionStringBuilder(app.Whole.ConnectionString).Database!;
        await Do(
            $"alter database {name} with allow_connections false; select pg_terminate_backend(pid) from pg_stat_activity where datname = '{name}'"
        );
        try
        {
            using HttpResponseMessage answer = await browser.GetAsync(new Uri("/site", UriKind.Relative));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
            Assert.Contains("The database does not answer", (await Pages.Parse(answer)).Words(), StringComparison.Ordinal);
        }
        finally
        {
            await Do($"alter database {name} with allow_connections true");
        }
        await browser.Open("/site");
    }

    private static async Task Do(string sql)
    {
        await using var connection = new NpgsqlConnection(Environment.GetEnvironmentVariable("MEADOW_TEST_DB"));
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
