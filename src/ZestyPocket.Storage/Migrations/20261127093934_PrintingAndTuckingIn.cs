using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PrintingAndTuckingIn : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Choice",
                table: "PrintJobs",
                type: "character varying(32)",
                maxLength: 32,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<List<Guid>>(
                name: "PieceIds",
                table: "PrintJobs",
                type: "uuid[]",
                nullable: false,
                defaultValueSql: "ARRAY[]::uuid[]");

            migrationBuilder.AddColumn<Guid>(
                name: "PrinterId",
                table: "PrintJobs",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Recipe",
                table: "PrintedPieces",
                type: "character varying(200)",
                maxLength: 200,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "PieceTicks",
                columns: table => new
                {
                    PieceId = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    UnitId = table.Column<Guid>(type: "uuid", nullable: false),
                    CutAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    TuckedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    TuckedRecipe = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PieceTicks", x => x.PieceId);
                    table.ForeignKey(
                        name: "FK_PieceTicks_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Printers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    ScaleX = table.Column<double>(type: "double precision", nullable: false),
                    ScaleY = table.Column<double>(type: "double precision", nullable: false),
                    OffsetX = table.Column<long>(type: "bigint", nullable: false),
                    OffsetY = table.Column<long>(type: "bigint", nullable: false),
                    MeasuredAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    MakesUp = table.Column<bool>(type: "boolean", nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Printers", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Printers_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PieceTicks_AlbumId_UnitId",
                table: "PieceTicks",
                columns: new[] { "AlbumId", "UnitId" });

            migrationBuilder.CreateIndex(
                name: "IX_Printers_KeeperId",
                table: "Printers",
                column: "KeeperId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PieceTicks");

            migrationBuilder.DropTable(
                name: "Printers");

            migrationBuilder.DropColumn(
                name: "Choice",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "PieceIds",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "PrinterId",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Recipe",
                table: "PrintedPieces");
        }
    }
}
