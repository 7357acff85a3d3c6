using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Backups : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Backups",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    FileName = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
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

            migrationBuilder.CreateIndex(
                name: "IX_Backups_KeeperId_RequestKey",
                table: "Backups",
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
                name: "Restores");
        }
    }
}
