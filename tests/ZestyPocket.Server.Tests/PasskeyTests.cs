using System.Net;
using System.Net.Http.Json;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Tests.Hosting;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// Signing in by passkey. What must be refused is from W3C Web Authentication, level 3, 7.2 (verifying an assertion).
/// </summary>
public sealed class PasskeyTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private const string Page = "http://localhost";

    private static SoftPasskey Device() => new("localhost", Page);

    /// <summary>Two keepers whose browsers say, as browsers do, which page asks.</summary>
    private static async Task<(TestHost Ada, TestHost Ben)> KeepersAsync(TestHost host)
    {
        var (ada, ben) = await TwoAsync(host);
        ada.Client.DefaultRequestHeaders.Add("Origin", Page);
        ben.Client.DefaultRequestHeaders.Add("Origin", Page);
        return (ada, ben);
    }

    private static HttpClient Browser(TestHost host)
    {
        var client = host.Browser();
        client.DefaultRequestHeaders.Add("Origin", Page);
        return client;
    }

    private static async Task AddAsync(TestHost keeper, SoftPasskey device, string name)
    {
        var begun = await keeper.PostAsync<PasskeyOptionsView>(
            "/api/account/passkey-options",
            new BeginPasskeyRequest(Password)
        );
        (
            await keeper.PostAsync<List<PasskeyView>>(
                "/api/account/passkeys",
                new NewPasskeyRequest(name, device.Make(begun.Options))
            )
        ).ShouldContain(p => p.Name == name);
    }

    private static async Task<string> OptionsAsync(HttpClient client)
    {
        using var asked = await SendAsync(client, "/api/sign-in/passkey-options", new { });
        return (await asked.Content.ReadFromJsonAsync<PasskeyOptionsView>(TestHost.Json, Cancel))!.Options;
    }

    private static async Task<HttpStatusCode> SignInAsync(HttpClient client, string credential)
    {
        using var answer = await SendAsync(client, "/api/sign-in/passkey", new PasskeySignInRequest(credential));
        return answer.StatusCode;
    }

    [Fact]
    public async Task A_passkey_signs_in_without_a_name_or_password_and_is_told_in_the_account()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await KeepersAsync(host);
        using var device = Device();
        await AddAsync(ada, device, "Kitchen tablet");
        var client = Browser(host);
        (await SignInAsync(client, device.Prove(await OptionsAsync(client)))).ShouldBe(HttpStatusCode.OK);
        var account = await host.As(client).GetAsync<AccountView>("/api/account");
        account.Name.ShouldBe("Ada");
        account.Passkeys.ShouldHaveSingleItem().Name.ShouldBe("Kitchen tablet");
        account
            .SignIns.Select(s => s.What)
            .Take(2)
            .ShouldBe(["signed in with Kitchen tablet", "passkey added: Kitchen tablet"]);
    }

    [Fact]
    public async Task A_proof_signs_in_once_and_only_in_the_window_that_was_asked()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await KeepersAsync(host);
        using var device = Device();
        await AddAsync(ada, device, "Phone");
        var (client, thief) = (Browser(host), Browser(host));
        var proof = device.Prove(await OptionsAsync(client));
        (await SignInAsync(thief, proof)).ShouldBe(HttpStatusCode.UnprocessableEntity, "never asked");
        await OptionsAsync(thief);
        (await SignInAsync(thief, proof)).ShouldBe(HttpStatusCode.UnprocessableEntity, "asked with another challenge");
        (await SignInAsync(client, proof)).ShouldBe(HttpStatusCode.OK);
        (await SignInAsync(client, proof)).ShouldBe(HttpStatusCode.UnprocessableEntity, "used");
    }

    public enum Flaw
    {
        AnotherPage,
        AskedNobody,
        CounterWentBack,
        Removed,
        UnknownDevice,
    }

    [Theory]
    [InlineData(Flaw.AnotherPage)]
    [InlineData(Flaw.AskedNobody)]
    [InlineData(Flaw.CounterWentBack)]
    [InlineData(Flaw.Removed)]
    [InlineData(Flaw.UnknownDevice)]
    public async Task A_flawed_proof_signs_nobody_in(Flaw flaw)
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await KeepersAsync(host);
        using var device = Device();
        device.Counter = 5;
        await AddAsync(ada, device, "Phone");
        using var other = Device();
        switch (flaw)
        {
            case Flaw.AnotherPage:
                device.Origin = "https://elsewhere.example";
                break;
            case Flaw.AskedNobody:
                device.Asks = false;
                break;
            case Flaw.CounterWentBack:
                device.Counter = 2;
                break;
            case Flaw.Removed:
                var id = (await ada.GetAsync<AccountView>("/api/account")).Passkeys.Single().Id;
                (
                    await ada.Client.DeleteAsync(new Uri($"/api/account/passkeys/{id}", UriKind.Relative), Cancel)
                ).StatusCode.ShouldBe(HttpStatusCode.OK);
                break;
            case Flaw.UnknownDevice:
                break;
        }

        var client = Browser(host);
        var options = await OptionsAsync(client);
        (await SignInAsync(client, (flaw == Flaw.UnknownDevice ? other : device).Prove(options))).ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await client.GetAsync(new Uri("/api/account", UriKind.Relative), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
    }

    [Fact]
    public async Task Nobody_makes_a_passkey_for_another_account_or_without_the_password_or_out_of_nothing()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await KeepersAsync(host);
        using var device = Device();
        await ada.RefusedAsync(
            422,
            HttpMethod.Post,
            "/api/account/passkey-options",
            new BeginPasskeyRequest("not the right one")
        );
        var begun = await ada.PostAsync<PasskeyOptionsView>(
            "/api/account/passkey-options",
            new BeginPasskeyRequest(Password)
        );
        var made = device.Make(begun.Options);
        await ben.RefusedAsync(422, HttpMethod.Post, "/api/account/passkeys", new NewPasskeyRequest("Mine", made));
        foreach (var nothing in new[] { "", "{}", "[]", "not JSON", "null", "{\"id\":\"é\"}" })
        {
            await ada.RefusedAsync(
                422,
                HttpMethod.Post,
                "/api/account/passkeys",
                new NewPasskeyRequest("Nothing", nothing)
            );
            (await SignInAsync(Browser(host), nothing)).ShouldBe(HttpStatusCode.UnprocessableEntity);
        }

        (await ada.GetAsync<AccountView>("/api/account")).Passkeys.ShouldBeEmpty();
        await ben.RefusedAsync(404, HttpMethod.Delete, "/api/account/passkeys/none", new { });
    }

    [Fact]
    public async Task A_locked_account_still_opens_by_passkey()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await KeepersAsync(host);
        using var device = Device();
        await AddAsync(ada, device, "Phone");
        var client = Browser(host);
        for (var i = 0; i < 10; i++)
        {
            await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", $"wrong password {i}"));
        }

        (await SendAsync(client, "/api/sign-in", new SignInRequest("Ada", Password))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await SignInAsync(client, device.Prove(await OptionsAsync(client)))).ShouldBe(HttpStatusCode.OK);
    }
}
