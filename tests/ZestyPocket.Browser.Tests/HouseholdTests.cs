using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Browser.Tests.Hosting;
using ZestyPocket.Server.Household;

namespace ZestyPocket.Browser.Tests;

/// <summary>A household: the first account, a second one by its link, and two shelves that do not mix.</summary>
public sealed class HouseholdTests
{
    [Fact]
    public async Task Two_keepers_make_accounts_sign_in_and_each_has_a_shelf_of_their_own()
    {
        await using var desk = await Desk.OpenAsync(household: true);
        desk.UntilText("main", "Open the link that ./start shows");
        desk.AxeFindings().ShouldBeEmpty("before the first account");
        await using (var scope = desk.Services.CreateAsyncScope())
        {
            desk.Go(
                (
                    await scope
                        .ServiceProvider.GetRequiredService<Accounts>()
                        .FirstLinkAsync(TestContext.Current.CancellationToken)
                )!
            );
        }

        desk.See("#new-name");
        desk.AxeFindings().ShouldBeEmpty("a new account");
        MakeAccount(desk, "Ada");
        desk.UntilText("main", "The shelf is empty");
        GatherTests.MakeAlbum(desk, "weekly", "Ada's year", "2026-05-04", units: 3);

        desk.Go("/account");
        desk.UntilText("[data-testid='account']", "account made");
        desk.AxeFindings().ShouldBeEmpty("the account");
        desk.ClickButton("Make a link");
        var link = desk.Until("the link", () => desk.See("#account-link").GetDomProperty("value"));
        desk.ClickButton("Sign out");
        desk.UntilText("main", "Sign in");

        desk.Go(link[link.IndexOf("/welcome", StringComparison.Ordinal)..]);
        desk.See("#new-name");
        MakeAccount(desk, "Ben");
        desk.UntilText("main", "The shelf is empty");
        desk.Go("/account");
        desk.ClickButton("Sign out");

        desk.UntilText("main", "Sign in");
        desk.Write("#sign-in-name", "Ada");
        desk.Write("#sign-in-password", "not the right one");
        desk.Click("form button[type='submit']");
        desk.UntilText("main", "do not belong together");
        desk.AxeFindings().ShouldBeEmpty("a refused sign-in");
        desk.Write("#sign-in-password", "plum duff at dawn");
        desk.Click("form button[type='submit']");
        desk.UntilText("main", "Ada's year");
    }

    private static void MakeAccount(Desk desk, string name)
    {
        desk.Write("#new-name", name);
        desk.Write("#new-password", "plum duff at dawn");
        desk.Write("#new-password-again", "plum duff at dawn");
        desk.Click("form button[type='submit']");
    }
}
