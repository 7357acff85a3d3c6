using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using ZestyPocket.Core.Keeping.Edits;
using ZestyPocket.Server.Household;
using ZestyPocket.Server.Keeping;
using ZestyPocket.Server.Tests.Hosting;
using ZestyPocket.Storage;
using ZestyPocket.Storage.Sharing;
using static ZestyPocket.Server.Tests.Hosting.Household;

namespace ZestyPocket.Server.Tests;

/// <summary>An album is shared by private links that end: common practice of such links; no source.</summary>
public sealed class SharingTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static Task<LinkView> InviteAsync(
        TestHost by,
        Guid album,
        AlbumRole role = AlbumRole.Reader,
        int uses = 1
    ) => by.PostAsync<LinkView>($"/api/albums/{album}/invitations", new InvitationRequest("Rosa", role, 7, uses));

    private static Task<HttpResponseMessage> AcceptAsync(TestHost guest, LinkView link) =>
        SendAsync(guest.Client, "/api/invitations/accept", new SecretRequest(SecretOf(link.Path)));

    [Fact]
    public async Task An_invitation_for_two_lets_two_of_six_in_and_its_secret_is_kept_by_nobody()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        var guests = new List<TestHost> { ben };
        for (var i = 0; i < 5; i++)
        {
            guests.Add(await AnotherAsync(ada, $"Guest {i}"));
        }

        var link = await InviteAsync(ada, album.Id, uses: 2);
        var answers = await Task.WhenAll(guests.Select(g => AcceptAsync(g, link)));
        answers.Count(a => a.StatusCode == HttpStatusCode.OK).ShouldBe(2);
        answers.Count(a => a.StatusCode == HttpStatusCode.UnprocessableEntity).ShouldBe(4);
        var sharing = await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing");
        sharing.Members.Count.ShouldBe(2);
        sharing.Invitations.ShouldBeEmpty();
        sharing.Log.Select(e => e.What).ShouldBe(["came as a reader", "came as a reader", "invited Rosa as a reader"]);
        await using var scope = host.Services.CreateAsyncScope();
        (await scope.ServiceProvider.GetRequiredService<ZestyContext>().Invitations.SingleAsync(Cancel)).Hash.ShouldBe(
            LinkSecret.HashOf(SecretOf(link.Path))
        );
    }

    [Fact]
    public async Task The_same_person_six_times_at_once_comes_once()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        var link = await InviteAsync(ada, album.Id, uses: 10);
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => AcceptAsync(ben, link)));
        answers.ShouldAllBe(a => a.IsSuccessStatusCode);
        var sharing = await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing");
        sharing.Members.ShouldHaveSingleItem().Name.ShouldBe("Ben");
        sharing.Invitations.ShouldHaveSingleItem().Uses.ShouldBe(1);
        // The owner who tries their own link uses nothing up and stays the owner.
        (await AcceptAsync(ada, link)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ada.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Role.ShouldBe(AlbumRole.Owner);
    }

    [Fact]
    public async Task A_revoked_invitation_and_one_that_is_too_old_are_refused_like_one_that_never_was()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        var (revoked, old) = (await InviteAsync(ada, album.Id), await InviteAsync(ada, album.Id));
        await ada.Client.DeleteAsync(
            new Uri($"/api/albums/{album.Id}/invitations/{revoked.Id}", UriKind.Relative),
            Cancel
        );
        await using (var scope = host.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<ZestyContext>();
            await db
                .Invitations.Where(i => i.Id == old.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(i => i.ExpiresAt, i => i.MadeAt), Cancel);
        }

        var said = new HashSet<string>();
        foreach (var secret in new[] { SecretOf(revoked.Path), SecretOf(old.Path), LinkSecret.New(), "", "0" })
        {
            var refused = await ben.RefusedAsync(
                422,
                HttpMethod.Post,
                "/api/invitations/accept",
                new SecretRequest(secret)
            );
            said.Add(refused["detail"]!.GetValue<string>());
        }

        said.ShouldHaveSingleItem();
        (await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing")).Members.ShouldBeEmpty();
    }

    [Fact]
    public async Task Whoever_is_invited_makes_an_account_with_the_same_link_and_finds_the_album_on_the_shelf()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        var link = await InviteAsync(ada, album.Id);
        var looked = await SendAsync(host.Browser(), "/api/invitations/look", new SecretRequest(SecretOf(link.Path)));
        (await looked.Content.ReadAsStringAsync(Cancel)).ShouldContain("Test year");
        var rosa = host.As(await MakeAsync(host, SecretOf(link.Path), "Rosa"));
        var shelf = (await rosa.GetAsync<List<AlbumSummary>>("/api/albums")).ShouldHaveSingleItem();
        (shelf.Name, shelf.Owner, shelf.Role).ShouldBe(("Test year", "Ada", AlbumRole.Reader));
        // Used up: nobody else comes with it.
        var second = await SendAsync(
            host.Browser(),
            "/api/accounts",
            new NewAccountRequest(SecretOf(link.Path), "Somebody", Password)
        );
        second.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_letter_with_the_link_is_written_and_one_to_no_address_leaves_no_invitation_behind()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, _) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        var path = $"/api/albums/{album.Id}/invitations";
        var asked = new InvitationRequest("Öma", AlbumRole.Reader, 1, 1, "oma@example.org", "http://localhost/");
        var link = await ada.PostAsync<LinkView>(path, asked);
        var letters = Path.Combine(host.DataFolder, "letters");
        var letter = await File.ReadAllTextAsync(Directory.GetFiles(letters, "*.eml").ShouldHaveSingleItem(), Cancel);
        letter.ShouldContain("To: oma@example.org");
        // The body is in a transfer encoding (RFC 2045); with its soft line ends taken out the link is whole.
        var body = letter[(letter.IndexOf("\r\n\r\n", StringComparison.Ordinal) + 4)..];
        System
            .Text.Encoding.UTF8.GetString(Convert.FromBase64String(body.Trim()))
            .ShouldContain($"http://localhost{link.Path}");

        foreach (
            var address in new[]
            {
                "nobody",
                "a@b.example\r\nBcc: c@d.example",
                "@",
                "a@b.example, c@d.example",
                "Oma <a@b.example>",
            }
        )
        {
            await ada.RefusedAsync(422, HttpMethod.Post, path, asked with { SendTo = address });
        }

        foreach (
            var site in new[]
            {
                "https://albums.example.org",
                "http://localhost.example.org",
                "http://localhost@example.org",
                "javascript:alert(1)//",
                "Open http://localhost/",
                "http://localhost/elsewhere?",
            }
        )
        {
            await ada.RefusedAsync(422, HttpMethod.Post, path, asked with { Site = site });
        }

        Directory.GetFiles(letters).Length.ShouldBe(1);
        (await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing")).Invitations.Count.ShouldBe(1);
    }

    [Fact]
    public async Task An_album_has_one_owner_and_an_invitation_has_bounds()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        foreach (
            var wrong in new[]
            {
                new InvitationRequest("Rosa", AlbumRole.Owner, 7, 1),
                new InvitationRequest(" ", AlbumRole.Reader, 7, 1),
                new InvitationRequest(new string('x', 81), AlbumRole.Reader, 7, 1),
                new InvitationRequest("Rosa", AlbumRole.Reader, 0, 1),
                new InvitationRequest("Rosa", AlbumRole.Reader, 91, 1),
                new InvitationRequest("Rosa", AlbumRole.Reader, 7, 0),
                new InvitationRequest("Rosa", AlbumRole.Reader, 7, 51),
            }
        )
        {
            await ada.RefusedAsync(422, HttpMethod.Post, $"/api/albums/{album.Id}/invitations", wrong);
        }

        await ShareAsync(ada, ben, album.Id, AlbumRole.Reader);
        var member = (await ada.GetAsync<SharingView>($"/api/albums/{album.Id}/sharing")).Members.Single();
        await ada.RefusedAsync(
            422,
            HttpMethod.Put,
            $"/api/albums/{album.Id}/members/{member.KeeperId}",
            new RoleRequest(AlbumRole.Owner)
        );
        (
            await ada.Client.PutAsync(
                new Uri($"/api/albums/{album.Id}/members/{member.KeeperId}", UriKind.Relative),
                TestHost.Written(new RoleRequest(AlbumRole.Editor)),
                Cancel
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ben.GetAsync<AlbumView>($"/api/albums/{album.Id}")).Role.ShouldBe(AlbumRole.Editor);
        // Who leaves is gone, and the album stays its owner's.
        await SendAsync(ben.Client, $"/api/albums/{album.Id}/leave", new { });
        (await ben.GetAsync<List<AlbumSummary>>("/api/albums")).ShouldBeEmpty();
        await ada.RefusedAsync(404, HttpMethod.Post, $"/api/albums/{album.Id}/leave", new { });
    }

    /// <summary>Whoever sees an album sees what is bound into it.</summary>
    [Fact]
    public async Task An_editor_binds_neither_an_album_of_the_owner_nor_one_of_their_own_into_a_shared_album()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var (shared, secret, own) = (
            await ada.MakeAlbumAsync(),
            await ada.MakeAlbumAsync(),
            await ben.MakeAlbumAsync()
        );
        await ShareAsync(ada, ben, shared.Id, AlbumRole.Editor);
        foreach (var other in new[] { secret.Id, own.Id })
        {
            await ben.AlbumEditRefusedAsync(
                422,
                shared.Id,
                new InsertAlbum(other, shared.Units[0].Id) { Revision = TestHost.Latest }
            );
        }

        var seen = await ben.GetAsync<InsertsView>($"/api/albums/{shared.Id}/inserted-albums");
        seen.Offers.ShouldBeEmpty();
        seen.Hosts.ShouldBeEmpty();
        // Nor the shared one into their own.
        await ben.AlbumEditRefusedAsync(
            422,
            own.Id,
            new InsertAlbum(shared.Id, own.Units[0].Id) { Revision = TestHost.Latest }
        );
    }

    [Fact]
    public async Task What_an_editor_sent_before_they_were_sent_away_is_taken_and_nothing_after_it()
    {
        await using var host = await TestHost.HouseholdAsync();
        var (ada, ben) = await TwoAsync(host);
        var album = await ada.MakeAlbumAsync();
        await ShareAsync(ada, ben, album.Id, AlbumRole.Editor);
        var batch = await ImportJobTests.BeginAsync(ben, album);
        await ImportJobTests.SendAsync(ben, batch, "0", "before.jpg", Pictures.Jpeg(shade: 1));
        await SendAwayAsync(ada, album.Id);
        using var content = new ByteArrayContent(Pictures.Jpeg(shade: 2));
        content.Headers.ContentType = new("application/octet-stream");
        using var late = await ben.Client.PostAsync(
            new Uri($"/api/imports/{batch}/files?key=1&name=after.jpg", UriKind.Relative),
            content,
            TestContext.Current.CancellationToken
        );
        late.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await using (var scope = host.Services.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<Importing.ImportJob>()
                .RunAsync(batch, TestContext.Current.CancellationToken);
        }

        (await ada.OpenAsync(album.Units[0].Id)).Photos.ShouldHaveSingleItem().FileName.ShouldBe("before.jpg");
    }
}
