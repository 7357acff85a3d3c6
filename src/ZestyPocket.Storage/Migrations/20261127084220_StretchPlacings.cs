using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class StretchPlacings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(
                name: "Colourfulness",
                table: "Photos",
                type: "double precision",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "StretchPlacings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    FromUnitId = table.Column<Guid>(type: "uuid", nullable: false),
                    Count = table.Column<int>(type: "integer", nullable: false),
                    Again = table.Column<bool>(type: "boolean", nullable: false),
                    Rules = table.Column<string>(type: "jsonb", nullable: false),
                    UnitsDone = table.Column<int>(type: "integer", nullable: false),
                    UnitsTotal = table.Column<int>(type: "integer", nullable: false),
                    EditId = table.Column<Guid>(type: "uuid", nullable: true),
                    Done = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: true),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    Problem = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StretchPlacings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StretchPlacings_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_StretchPlacings_AlbumId",
                table: "StretchPlacings",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_StretchPlacings_KeeperId_RequestKey",
                table: "StretchPlacings",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "StretchPlacings");

            migrationBuilder.DropColumn(
                name: "Colourfulness",
                table: "Photos");
        }
    }
}
