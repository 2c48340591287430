using Microsoft.Extensions.DependencyInjection;
using UnrulyMeadow.Web.Sites;

namespace UnrulyMeadow.Web.Tests.People;

/// <summary>What a process keeps of many sites.</summary>
public sealed class ManySitesTests(EmptyApp app) : IClassFixture<EmptyApp>
{
    [Fact]
    public async Task Room_is_made_while_others_ask_for_sites_that_were_not_kept_yet()
    {
        SiteRegistry sites = app.Services.GetRequiredService<SiteRegistry>();
        using var over = new CancellationTokenSource(TimeSpan.FromSeconds(2));
        Task[] asking =
        [
            .. Enumerable
                .Range(0, 3)
                .Select(_ =>
                    Task.Run(
                        () =>
                        {
                            while (!over.IsCancellationRequested)
                                sites.Of(Guid.NewGuid());
                        },
                        CancellationToken.None
                    )
                ),
        ];
        while (!over.IsCancellationRequested)
            sites.MakeRoom();
        await Task.WhenAll(asking);
        Assert.True(sites.KeptCount > 0);
    }
}
