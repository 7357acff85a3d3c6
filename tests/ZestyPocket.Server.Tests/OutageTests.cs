using Npgsql;
using ZestyPocket.Server.Hosting;

namespace ZestyPocket.Server.Tests;

/// <summary>
/// What the program stands on is missing: which it is, told with 503. Error numbers from errno(3) and PostgreSQL,
/// Appendix A.
/// </summary>
public sealed class OutageTests
{
    [Theory]
    [InlineData(28, "The disk is full")]
    [InlineData(122, "The disk is full")]
    [InlineData(30, "The data folder cannot be written to")]
    public void A_full_disk_and_a_read_only_one_are_told_apart(int number, string title) =>
        Outage
            .Of(new InvalidOperationException("outer", new IOException("inner", unchecked((int)0x80070000) | number)))!
            .Title.ShouldBe(title);

    [Theory]
    [InlineData("53100", "The disk is full")]
    [InlineData("25006", "The data folder cannot be written to")]
    [InlineData("57P01", "The database does not answer")]
    [InlineData("57P03", "The database does not answer")]
    [InlineData("53300", "The database does not answer")]
    public void What_the_database_says_of_itself_is_understood(string state, string title) =>
        Outage.Of(new PostgresException("", "FATAL", "FATAL", state))!.Title.ShouldBe(title);

    [Fact]
    public void A_broken_rule_of_the_database_is_no_outage() =>
        Outage.Of(new PostgresException("", "ERROR", "ERROR", "23505")).ShouldBeNull();

    [Fact]
    public void Without_a_database_everything_says_so_and_when_to_ask_again()
    {
        Outage.Of(new NpgsqlException("gone", new System.Net.Sockets.SocketException(111)))!.IsDatabase.ShouldBeTrue();
        Outage.Of(new UnauthorizedAccessException())!.Problem.Status.ShouldBe(503);
        Outage.Of(new IOException("a file is missing", 2)).ShouldBeNull();
    }
}
