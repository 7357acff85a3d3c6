using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class LeafForms : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Form",
                table: "Protectors",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "Form",
                table: "Leaves",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "Formulas",
                table: "Albums",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "School",
                table: "Albums",
                type: "character varying(32)",
                maxLength: 32,
                nullable: false,
                defaultValue: "Spread");

            migrationBuilder.CreateTable(
                name: "Designs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    Notation = table.Column<string>(type: "character varying(2000)", maxLength: 2000, nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    PutAwayAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Designs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Designs_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PrintedPieces",
                columns: table => new
                {
                    PieceId = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    UnitId = table.Column<Guid>(type: "uuid", nullable: false),
                    JobId = table.Column<Guid>(type: "uuid", nullable: false),
                    Number = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    CutWidth = table.Column<long>(type: "bigint", nullable: false),
                    CutHeight = table.Column<long>(type: "bigint", nullable: false),
                    PrintedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PrintedPieces", x => x.PieceId);
                    table.ForeignKey(
                        name: "FK_PrintedPieces_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Designs_KeeperId_MadeAt",
                table: "Designs",
                columns: new[] { "KeeperId", "MadeAt" });

            migrationBuilder.CreateIndex(
                name: "IX_PrintedPieces_AlbumId_UnitId",
                table: "PrintedPieces",
                columns: new[] { "AlbumId", "UnitId" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Designs");

            migrationBuilder.DropTable(
                name: "PrintedPieces");

            migrationBuilder.DropColumn(
                name: "Form",
                table: "Protectors");

            migrationBuilder.DropColumn(
                name: "Form",
                table: "Leaves");

            migrationBuilder.DropColumn(
                name: "Formulas",
                table: "Albums");

            migrationBuilder.DropColumn(
                name: "School",
                table: "Albums");
        }
    }
}
