using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.EntityFrameworkCore.Migrations.Operations;

namespace ZestyPocket.Storage.Tests;

/// <summary>
/// While servers are replaced one after another, those of the version before work on the new schema: it may have more,
/// never less ("expand, then contract"; common practice). What an older server does not know must take care of itself.
/// </summary>
public sealed class RolloutTests
{
    /// <summary>The last one before several servers shared a database; those up to it were never rolled out.</summary>
    private const string Before = "20261128001612_Household";

    public static TheoryData<string> RolledOut()
    {
        using var db = Context();
        return
        [
            .. db.GetService<IMigrationsAssembly>().Migrations.Keys.Where(m => string.CompareOrdinal(m, Before) > 0),
        ];
    }

    [Theory]
    [MemberData(nameof(RolledOut))]
    public void An_older_server_goes_on_working_after_a_migration(string id)
    {
        using var db = Context();
        var migrations = db.GetService<IMigrationsAssembly>();
        var operations = migrations.CreateMigration(migrations.Migrations[id], "Npgsql").UpOperations;
        var made = operations.OfType<CreateTableOperation>().Select(t => t.Name).ToHashSet();
        operations.Where(o => !Expands(o, made)).Select(o => o.GetType().Name).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_taken_away_or_asked_for_anew_does_not_expand()
    {
        var made = new HashSet<string> { "New" };
        Expands(new DropColumnOperation { Table = "Albums", Name = "Name" }, made).ShouldBeFalse();
        Expands(new RenameColumnOperation { Table = "Albums", Name = "Name" }, made).ShouldBeFalse();
        Expands(new AddColumnOperation { Table = "Albums", Name = "Must" }, made).ShouldBeFalse();
        Expands(
                new AddColumnOperation
                {
                    Table = "Albums",
                    Name = "May",
                    IsNullable = true,
                },
                made
            )
            .ShouldBeTrue();
        Expands(
                new AddColumnOperation
                {
                    Table = "Albums",
                    Name = "Zero",
                    DefaultValue = 0,
                },
                made
            )
            .ShouldBeTrue();
        Expands(new CreateIndexOperation { Table = "Albums", IsUnique = true }, made).ShouldBeFalse();
        Expands(new CreateIndexOperation { Table = "New", IsUnique = true }, made).ShouldBeTrue();
        Expands(new SqlOperation { Sql = "UPDATE" }, made).ShouldBeFalse();
    }

    private static bool Expands(MigrationOperation operation, HashSet<string> made) =>
        operation switch
        {
            CreateTableOperation or InsertDataOperation => true,
            AddColumnOperation column => column.IsNullable
                || column.DefaultValue is not null
                || column.DefaultValueSql is not null
                || column.ComputedColumnSql is not null,
            CreateIndexOperation index => !index.IsUnique || made.Contains(index.Table),
            AddForeignKeyOperation key => made.Contains(key.Table),
            _ => false,
        };

    private static ZestyContext Context()
    {
        var options = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(options, "Host=127.0.0.1");
        return new ZestyContext(options.Options);
    }
}
