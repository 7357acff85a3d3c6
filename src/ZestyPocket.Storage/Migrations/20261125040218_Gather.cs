using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Gather : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Units_AlbumId_FirstDay",
                table: "Units");

            migrationBuilder.RenameColumn(
                name: "LeftOut",
                table: "Photos",
                newName: "SuggestedBest");

            migrationBuilder.RenameColumn(
                name: "DaySetByKeeper",
                table: "Photos",
                newName: "FocusByKeeper");

            migrationBuilder.AddColumn<int>(
                name: "FirstNumber",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "FirstOccurrence",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "Gone",
                table: "Units",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "KeepsakesInEnvelope",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "LastNumber",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "LastOccurrence",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "LeftOut",
                table: "Units",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Name",
                table: "Units",
                type: "character varying(80)",
                maxLength: 80,
                nullable: true);

            migrationBuilder.AddColumn<List<Guid>>(
                name: "PhotosPlaced",
                table: "Units",
                type: "uuid[]",
                nullable: false,
                defaultValueSql: "'{}'::uuid[]");

            migrationBuilder.AddColumn<int>(
                name: "Year",
                table: "Units",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "CoverBoxes",
                table: "Photos",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<bool>(
                name: "DayTakenAway",
                table: "Photos",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Favourite",
                table: "Photos",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<double>(
                name: "FocusX",
                table: "Photos",
                type: "double precision",
                nullable: false,
                defaultValue: 0.5);

            migrationBuilder.AddColumn<double>(
                name: "FocusY",
                table: "Photos",
                type: "double precision",
                nullable: false,
                defaultValue: 0.5);

            migrationBuilder.AddColumn<Guid>(
                name: "GroupId",
                table: "Photos",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "GuessedDay",
                table: "Photos",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "KeepBoxes",
                table: "Photos",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<LocalDate>(
                name: "KeeperDay",
                table: "Photos",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "KeeperHour",
                table: "Photos",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "Photos",
                type: "character varying(32)",
                maxLength: 32,
                nullable: false,
                defaultValue: "Photo");

            migrationBuilder.AddColumn<long>(
                name: "Likeness",
                table: "Photos",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<int>(
                name: "Occurrence",
                table: "Photos",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Page",
                table: "Photos",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<int>(
                name: "Pages",
                table: "Photos",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<string>(
                name: "Palette",
                table: "Photos",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<Guid>(
                name: "SeriesId",
                table: "Photos",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "Sharpness",
                table: "Photos",
                type: "double precision",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<Instant>(
                name: "SortAt",
                table: "Photos",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: NodaTime.Instant.FromUnixTimeTicks(0L));

            migrationBuilder.AddColumn<LocalDateTime>(
                name: "Taken",
                table: "Photos",
                type: "timestamp without time zone",
                nullable: true);

            migrationBuilder.AddColumn<Instant>(
                name: "TakenAt",
                table: "Photos",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "TimeSource",
                table: "Photos",
                type: "character varying(32)",
                maxLength: 32,
                nullable: false,
                defaultValue: "None");

            migrationBuilder.AddColumn<double>(
                name: "Tone",
                table: "Photos",
                type: "double precision",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<string>(
                name: "Verdict",
                table: "Photos",
                type: "character varying(32)",
                maxLength: 32,
                nullable: false,
                defaultValue: "Undecided");

            migrationBuilder.AddColumn<bool>(
                name: "Gone",
                table: "Leaves",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Calendar",
                table: "Albums",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<int>(
                name: "FacesPerUnit",
                table: "Albums",
                type: "integer",
                nullable: false,
                defaultValue: 2);

            migrationBuilder.CreateTable(
                name: "Imports",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Source = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Imports", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Imports_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ImportFiles",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    BatchId = table.Column<Guid>(type: "uuid", nullable: false),
                    Key = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    Sequence = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    FileName = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    ZipFileId = table.Column<Guid>(type: "uuid", nullable: true),
                    ZipEntry = table.Column<int>(type: "integer", nullable: true),
                    Sha256 = table.Column<string>(type: "character(64)", fixedLength: true, maxLength: 64, nullable: true),
                    Bytes = table.Column<long>(type: "bigint", nullable: false),
                    Modified = table.Column<LocalDateTime>(type: "timestamp without time zone", nullable: true),
                    Status = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    Detail = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: false),
                    PhotoId = table.Column<Guid>(type: "uuid", nullable: true),
                    UnitId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ImportFiles", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ImportFiles_Imports_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Imports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Units_AlbumId_Ordinal",
                table: "Units",
                columns: new[] { "AlbumId", "Ordinal" });

            migrationBuilder.CreateIndex(
                name: "IX_Photos_AlbumId_SortAt_Id",
                table: "Photos",
                columns: new[] { "AlbumId", "SortAt", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Photos_AlbumId_UnitId_Day",
                table: "Photos",
                columns: new[] { "AlbumId", "UnitId", "Day" },
                filter: "\"Verdict\" <> 'Leave'");

            migrationBuilder.CreateIndex(
                name: "IX_ImportFiles_BatchId_Key",
                table: "ImportFiles",
                columns: new[] { "BatchId", "Key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ImportFiles_BatchId_Status_Sequence",
                table: "ImportFiles",
                columns: new[] { "BatchId", "Status", "Sequence" });

            migrationBuilder.CreateIndex(
                name: "IX_Imports_AlbumId_MadeAt",
                table: "Imports",
                columns: new[] { "AlbumId", "MadeAt" });

            // What was one scheme and one cut-off becomes a calendar; weeks get the numbers they were shown with.
            migrationBuilder.Sql(
                """
                UPDATE "Albums" SET "Calendar" = jsonb_build_object(
                    'kind', 'weekly', 'firstDay', to_char("FirstDay", 'YYYY-MM-DD'), 'scheme', 'iso',
                    'cutOff', to_char("LateNightCutOff", 'HH24:MI:SS'), 'homeZone', 'Etc/UTC');
                UPDATE "Units" SET "Year" = EXTRACT(isoyear FROM "FirstDay"), "FirstNumber" = EXTRACT(week FROM "FirstDay"), "LastNumber" = EXTRACT(week FROM "FirstDay");
                UPDATE "Units" SET "PhotosPlaced" = ARRAY(
                    SELECT (piece->>'photoId')::uuid FROM jsonb_array_elements("Content"->'pieces') piece WHERE piece->>'piece' = 'photoPrint');
                UPDATE "Photos" SET
                    "Verdict" = CASE WHEN "SuggestedBest" THEN 'Leave' ELSE 'Undecided' END,
                    "KeeperDay" = CASE WHEN "FocusByKeeper" THEN "Day" END,
                    "DayTakenAway" = "FocusByKeeper" AND "Day" IS NULL,
                    "TimeSource" = CASE WHEN "Recorded" IS NULL THEN 'None' ELSE 'File' END,
                    "Taken" = "Recorded",
                    "TakenAt" = ("Recorded" - make_interval(mins => COALESCE("OffsetMinutes", 0))) AT TIME ZONE 'UTC',
                    "SortAt" = CASE WHEN "Day" IS NULL THEN timestamptz '9999-12-30 00:00:00Z'
                        ELSE COALESCE("Recorded" - make_interval(mins => COALESCE("OffsetMinutes", 0)), "Day" + time '12:00') AT TIME ZONE 'UTC' END;
                UPDATE "Photos" SET "SuggestedBest" = FALSE, "FocusByKeeper" = FALSE;
                UPDATE "Photos" SET "Format" = initcap("Format");
                """);

            migrationBuilder.DropColumn(
                name: "LateNightCutOff",
                table: "Albums");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ImportFiles");

            migrationBuilder.DropTable(
                name: "Imports");

            migrationBuilder.DropIndex(
                name: "IX_Units_AlbumId_Ordinal",
                table: "Units");

            migrationBuilder.DropIndex(
                name: "IX_Photos_AlbumId_SortAt_Id",
                table: "Photos");

            migrationBuilder.DropIndex(
                name: "IX_Photos_AlbumId_UnitId_Day",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "FirstNumber",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "FirstOccurrence",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "Gone",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "KeepsakesInEnvelope",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "LastNumber",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "LastOccurrence",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "LeftOut",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "Name",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "PhotosPlaced",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "Year",
                table: "Units");

            migrationBuilder.DropColumn(
                name: "CoverBoxes",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "DayTakenAway",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Favourite",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "FocusX",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "FocusY",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "GroupId",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "GuessedDay",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "KeepBoxes",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "KeeperDay",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "KeeperHour",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Kind",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Likeness",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Occurrence",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Page",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Pages",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Palette",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "SeriesId",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Sharpness",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "SortAt",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Taken",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "TakenAt",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "TimeSource",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Tone",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Verdict",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Gone",
                table: "Leaves");

            migrationBuilder.DropColumn(
                name: "Calendar",
                table: "Albums");

            migrationBuilder.DropColumn(
                name: "FacesPerUnit",
                table: "Albums");

            migrationBuilder.RenameColumn(
                name: "SuggestedBest",
                table: "Photos",
                newName: "LeftOut");

            migrationBuilder.RenameColumn(
                name: "FocusByKeeper",
                table: "Photos",
                newName: "DaySetByKeeper");

            migrationBuilder.AddColumn<LocalTime>(
                name: "LateNightCutOff",
                table: "Albums",
                type: "time",
                nullable: false,
                defaultValue: new NodaTime.LocalTime(0, 0));

            migrationBuilder.CreateIndex(
                name: "IX_Units_AlbumId_FirstDay",
                table: "Units",
                columns: new[] { "AlbumId", "FirstDay" },
                unique: true);
        }
    }
}
