using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PrintRoom : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "Options_Bleed",
                table: "PrintJobs",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<int>(
                name: "Options_Copies",
                table: "PrintJobs",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<bool>(
                name: "Options_CropMarks",
                table: "PrintJobs",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Options_NumbersOnBack",
                table: "PrintJobs",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Options_Only",
                table: "PrintJobs",
                type: "character varying(32)",
                maxLength: 32,
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Options_SafeEdge",
                table: "PrintJobs",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<bool>(
                name: "Options_Tiles",
                table: "PrintJobs",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Options_UnitPerSheet",
                table: "PrintJobs",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Options_UseLeftovers",
                table: "PrintJobs",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "BackDown",
                table: "Printers",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<long>(
                name: "BackRight",
                table: "Printers",
                type: "bigint",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "Spoilt",
                table: "PrintedPieces",
                type: "character varying(32)",
                maxLength: 32,
                nullable: true);

            migrationBuilder.CreateTable(
                name: "LabOrders",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    UnitIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    Choice = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    PieceIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    At = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    Prints = table.Column<string>(type: "jsonb", nullable: false),
                    Repeats = table.Column<Guid>(type: "uuid", nullable: true),
                    PagesDone = table.Column<int>(type: "integer", nullable: false),
                    PagesTotal = table.Column<int>(type: "integer", nullable: false),
                    SentAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
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
                    table.PrimaryKey("PK_LabOrders", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LabOrders_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PapersOnHand",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Stock = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    PaperKey = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    Count = table.Column<int>(type: "integer", nullable: true),
                    Price = table.Column<decimal>(type: "numeric(12,4)", precision: 12, scale: 4, nullable: true),
                    HasDirection = table.Column<bool>(type: "boolean", nullable: false),
                    BothSides = table.Column<bool>(type: "boolean", nullable: false),
                    UsedBeside = table.Column<bool>(type: "boolean", nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PapersOnHand", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PapersOnHand_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SheetLeftovers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    JobId = table.Column<Guid>(type: "uuid", nullable: false),
                    Sheet = table.Column<int>(type: "integer", nullable: false),
                    Stock = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    PaperKey = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    X = table.Column<long>(type: "bigint", nullable: false),
                    Y = table.Column<long>(type: "bigint", nullable: false),
                    Width = table.Column<long>(type: "bigint", nullable: false),
                    Height = table.Column<long>(type: "bigint", nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    UsedBy = table.Column<Guid>(type: "uuid", nullable: true),
                    At = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SheetLeftovers", x => x.Id);
                    table.ForeignKey(
                        name: "FK_SheetLeftovers_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LabOrders_AlbumId",
                table: "LabOrders",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_LabOrders_KeeperId_RequestKey",
                table: "LabOrders",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PapersOnHand_KeeperId_Stock_PaperKey",
                table: "PapersOnHand",
                columns: new[] { "KeeperId", "Stock", "PaperKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SheetLeftovers_JobId",
                table: "SheetLeftovers",
                column: "JobId");

            migrationBuilder.CreateIndex(
                name: "IX_SheetLeftovers_KeeperId_State",
                table: "SheetLeftovers",
                columns: new[] { "KeeperId", "State" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "LabOrders");

            migrationBuilder.DropTable(
                name: "PapersOnHand");

            migrationBuilder.DropTable(
                name: "SheetLeftovers");

            migrationBuilder.DropColumn(
                name: "Options_Bleed",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_Copies",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_CropMarks",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_NumbersOnBack",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_Only",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_SafeEdge",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_Tiles",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_UnitPerSheet",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "Options_UseLeftovers",
                table: "PrintJobs");

            migrationBuilder.DropColumn(
                name: "BackDown",
                table: "Printers");

            migrationBuilder.DropColumn(
                name: "BackRight",
                table: "Printers");

            migrationBuilder.DropColumn(
                name: "Spoilt",
                table: "PrintedPieces");
        }
    }
}
