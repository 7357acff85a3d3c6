using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium.VirtualAuth;
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
        desk.Write("#codes-password", "plum duff at dawn");
        desk.ClickButton("Make new codes");
        var code = desk.See("[data-testid='codes'] code").Text;
        desk.AxeFindings().ShouldBeEmpty("recovery codes");
        desk.ClickLink("Operations");
        desk.UntilText("[data-testid='operations']", "Refused sign-ins");
        desk.AxeFindings().ShouldBeEmpty("the operator's page");
        desk.Go("/account");
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

        desk.Go("/account");
        desk.ClickButton("Sign out");
        desk.UntilText("main", "Sign in");
        desk.ClickButton("I forgot my password");
        desk.See("#recover-code");
        desk.AxeFindings().ShouldBeEmpty("a forgotten password");
        desk.Write("#recover-name", "Ada");
        desk.Write("#recover-code", code);
        desk.Write("#recover-wanted", "another plum for the boat");
        desk.ClickButton("Set password");
        desk.UntilText("main", "Ada's year");
    }

    [Fact]
    public async Task A_passkey_is_added_to_the_account_and_signs_in_without_a_password()
    {
        await using var desk = await Desk.OpenAsync(household: true);
        desk.UntilText("main", "Open the link that ./start shows");
        string first;
        await using (var scope = desk.Services.CreateAsyncScope())
        {
            first = (
                await scope
                    .ServiceProvider.GetRequiredService<Accounts>()
                    .FirstLinkAsync(TestContext.Current.CancellationToken)
            )!;
        }

        desk.Go(first);
        MakeAccount(desk, "Ada");
        desk.UntilText("main", "The shelf is empty");
        // A bare address has no passkeys; the page says where they are.
        desk.Go("/account");
        desk.UntilText("[data-testid='account']", "Open it by its name to add one");
        desk.ClickLink("http://localhost");
        desk.UseName();
        desk.UntilText("main", "Sign in");
        desk.Browser.AddVirtualAuthenticator(
            new VirtualAuthenticatorOptions()
                .SetProtocol(VirtualAuthenticatorOptions.Protocol.CTAP2)
                .SetTransport(VirtualAuthenticatorOptions.Transport.INTERNAL)
                .SetHasResidentKey(true)
                .SetHasUserVerification(true)
                .SetIsUserVerified(true)
        );
        desk.Write("#sign-in-name", "Ada");
        desk.Write("#sign-in-password", "plum duff at dawn");
        desk.Click("form button[type='submit']");
        desk.UntilText("main", "Passkeys");
        desk.Write("#passkey-name", "Kitchen tablet");
        desk.Write("#passkey-password", "plum duff at dawn");
        desk.ClickButton("Add a passkey");
        desk.UntilText("[data-testid='passkeys']", "Kitchen tablet, since");
        desk.AxeFindings().ShouldBeEmpty("a passkey");

        desk.ClickButton("Sign out");
        desk.UntilText("main", "Use a passkey");
        desk.AxeFindings().ShouldBeEmpty("signing in with a passkey");
        desk.ClickButton("Use a passkey");
        desk.UntilText("main", "The shelf is empty");

        desk.Go("/account");
        desk.UntilText("main", "signed in with Kitchen tablet");
        desk.ClickButton("Remove Kitchen tablet");
        desk.Gone("[data-testid='passkeys']");
        desk.ClickButton("Sign out");
        desk.UntilText("main", "Use a passkey");
        desk.ClickButton("Use a passkey");
        desk.UntilText("main", "opens no account here");
    }

    [Fact]
    public async Task Two_people_work_at_one_week_and_a_third_writes_on_a_phone_without_an_account()
    {
        await using var ada = await Desk.OpenAsync(household: true);
        // The page that opened first goes to the door by itself, and must not be left on its way there.
        ada.UntilText("main", "Open the link that ./start shows");
        await using (var scope = ada.Services.CreateAsyncScope())
        {
            ada.Go(
                (
                    await scope
                        .ServiceProvider.GetRequiredService<Accounts>()
                        .FirstLinkAsync(TestContext.Current.CancellationToken)
                )!
            );
        }

        MakeAccount(ada, "Ada");
        ada.UntilText("main", "The shelf is empty");
        GatherTests.MakeAlbum(ada, "weekly", "Ada's year", "2026-05-04", units: 3);

        var ben = ada.Guest(Invite(ada, "Ben", "Editor"));
        ben.UntilText("main", "Ada invites Ben as an editor");
        ben.AxeFindings().ShouldBeEmpty("an invitation");
        ben.ClickLink("Make an account");
        ben.See("#new-name");
        MakeAccount(ben, "Ben");
        ben.UntilText("main", "Ada’s album; you are an editor");
        ben.ClickLink("Ada's year");
        var rosa = ada.Guest(Invite(ada, "Rosa", "Reader"));
        rosa.ClickLink("Make an account");
        rosa.See("#new-name");
        MakeAccount(rosa, "Rosa");
        rosa.ClickLink("Ada's year");
        rosa.See(".leaf");
        rosa.AxeFindings().ShouldBeEmpty("a reader's album");

        // Each sees the other, and what the other does without asking for it.
        ada.ClickButton("Place");
        ben.ClickButton("Place");
        ada.UntilText("[data-testid='company']", "Ben: Week 19");
        ada.ClickButton("Add a journaling card");
        ben.See("[aria-label^='Loose card']");

        rosa.ClickButton("Comments");
        rosa.Write("#comment", "Please print the garden for me.");
        rosa.ClickButton("Add comment");
        rosa.UntilText("[data-testid='comments']", "Please print the garden for me.");
        rosa.AxeFindings().ShouldBeEmpty("comments");
        ada.ClickButton("Comments");
        ada.UntilText("[data-testid='comments']", "Please print the garden for me.");
        ada.ClickButton("Mark as done");
        rosa.UntilText("[data-testid='comments']", "done");
        ada.Press(OpenQA.Selenium.Keys.Escape);

        ada.OpenRoom("Tell", "Contributions");
        ada.Write("#ask-people", "Nan\nOtto");
        ada.Write("#ask-prompt", "What grew first?");
        ada.AxeFindings().ShouldBeEmpty("contributions");
        ada.ClickButton("Make links");
        var link = ada.Until("the link", () => ada.See("[id^='link-']").GetDomProperty("value"));
        var ottos = ada
            .Browser.FindElements(OpenQA.Selenium.By.CssSelector("[id^='link-']"))[1]
            .GetDomProperty("value")!;
        var nan = ada.Guest(link[link.IndexOf("/write", StringComparison.Ordinal)..]);
        nan.Resize(400, 800);
        nan.UntilText("main", "What grew first?");
        nan.AxeFindings().ShouldBeEmpty("a contributor's phone");
        nan.Write("#words", "The broad beans, in the cold frame.");
        nan.ClickButton("Send words");
        nan.UntilText("main", "Sent. Thank you!");

        // Her words come in without asking, wait, and are a story after a yes.
        ada.UntilText("[data-testid='asked']", "The broad beans, in the cold frame.");
        ada.ClickButton("Add as a story");
        ada.UntilText("[data-testid='asked']", "In the album");
        ada.OpenRoom("Tell", "Stories & cards");
        ada.UntilText("main", "7 words: one");
        nan.Browser.Navigate().Refresh();
        nan.UntilText("main", "Your words are in the album");
        // Another link in the same window is another person's.
        nan.Go(ottos[ottos.IndexOf("/write", StringComparison.Ordinal)..]);
        nan.UntilText("main", "Hello Otto");
        foreach (var desk in new[] { ada, ben, rosa, nan })
        {
            // Who is not signed in yet is refused, which a browser writes down.
            desk.Complaints().Where(c => !c.Contains("401", StringComparison.Ordinal)).ShouldBeEmpty();
        }
    }

    /// <summary>The path of an invitation to the album that is open.</summary>
    private static string Invite(Desk desk, string name, string role)
    {
        desk.OpenRoom("Keep", "Sharing");
        desk.Write("#invite-for", name);
        desk.Choose("#invite-role", role);
        desk.AxeFindings().ShouldBeEmpty("sharing");
        desk.ClickButton("Make invitation");
        desk.UntilText("main", $"{name}, {role.ToLowerInvariant()}");
        var link = desk.See("#invite-link").GetDomProperty("value")!;
        return link[link.IndexOf("/join", StringComparison.Ordinal)..];
    }

    private static void MakeAccount(Desk desk, string name)
    {
        desk.Write("#new-name", name);
        desk.Write("#new-password", "plum duff at dawn");
        desk.Write("#new-password-again", "plum duff at dawn");
        desk.Click("form button[type='submit']");
    }
}
