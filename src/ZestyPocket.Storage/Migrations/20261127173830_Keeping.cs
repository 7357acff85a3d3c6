using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Keeping : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Sheet",
                table: "PrintedPieces",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "BackupEveryDays",
                table: "Keepers",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "BackupsKept",
                table: "Keepers",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Keeping",
                table: "Albums",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.CreateTable(
                name: "Backups",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    FileName = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    Scheduled = table.Column<bool>(type: "boolean", nullable: false),
                    Bytes = table.Column<long>(type: "bigint", nullable: false),
                    FilesDone = table.Column<int>(type: "integer", nullable: false),
                    FilesTotal = table.Column<int>(type: "integer", nullable: false),
                    Report = table.Column<List<string>>(type: "text[]", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    Problem = table.Column<string>(type: "text", nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Backups", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Books",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    UnitIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    Form = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    Light = table.Column<bool>(type: "boolean", nullable: false),
                    PagesDone = table.Column<int>(type: "integer", nullable: false),
                    PagesTotal = table.Column<int>(type: "integer", nullable: false),
                    Bytes = table.Column<long>(type: "bigint", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    Problem = table.Column<string>(type: "text", nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Books", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Books_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Restores",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    FileName = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    FilesDone = table.Column<int>(type: "integer", nullable: false),
                    AlbumIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    Report = table.Column<List<string>>(type: "text[]", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    Problem = table.Column<string>(type: "text", nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Restores", x => x.Id);
                });

            migrationBuilder.UpdateData(
                table: "Keepers",
                keyColumn: "Id",
                keyValue: new Guid("00000000-0000-7000-8000-000000000001"),
                columns: new[] { "BackupEveryDays", "BackupsKept" },
                values: new object[] { null, 5 });

            migrationBuilder.CreateIndex(
                name: "IX_Backups_KeeperId_RequestKey",
                table: "Backups",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Books_AlbumId",
                table: "Books",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_Books_KeeperId_RequestKey",
                table: "Books",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Restores_KeeperId_RequestKey",
                table: "Restores",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Backups");

            migrationBuilder.DropTable(
                name: "Books");

            migrationBuilder.DropTable(
                name: "Restores");

            migrationBuilder.DropColumn(
                name: "Sheet",
                table: "PrintedPieces");

            migrationBuilder.DropColumn(
                name: "BackupEveryDays",
                table: "Keepers");

            migrationBuilder.DropColumn(
                name: "BackupsKept",
                table: "Keepers");

            migrationBuilder.DropColumn(
                name: "Keeping",
                table: "Albums");
        }
    }
}
