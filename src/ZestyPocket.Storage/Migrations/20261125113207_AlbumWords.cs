using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class AlbumWords : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Words",
                table: "Albums",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            // People and known words stood in the calendar before.
            migrationBuilder.Sql(
                """
                UPDATE "Albums" SET
                    "Words" = jsonb_strip_nulls(jsonb_build_object('people', "Calendar"->'people', 'knownWords', "Calendar"->'knownWords')),
                    "Calendar" = "Calendar" - 'people' - 'knownWords';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""UPDATE "Albums" SET "Calendar" = "Calendar" || jsonb_strip_nulls(jsonb_build_object('people', "Words"->'people', 'knownWords', "Words"->'knownWords'));""");
            migrationBuilder.DropColumn(
                name: "Words",
                table: "Albums");
        }
    }
}
