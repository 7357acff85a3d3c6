using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class StashAndTags : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<List<string>>(
                name: "People",
                table: "Photos",
                type: "text[]",
                nullable: false,
                defaultValueSql: "'{}'::text[]");

            migrationBuilder.AddColumn<string>(
                name: "Currency",
                table: "LabOrders",
                type: "character varying(3)",
                maxLength: 3,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "Price",
                table: "LabOrders",
                type: "numeric(12,2)",
                precision: 12,
                scale: 2,
                nullable: true);

            migrationBuilder.AddColumn<LocalDate>(
                name: "FolderDay",
                table: "ImportFiles",
                type: "date",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "StashItems",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Item = table.Column<string>(type: "jsonb", nullable: false),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadStepId = table.Column<Guid>(type: "uuid", nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StashItems", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StashItems_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "StashSteps",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Sequence = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    Summary = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    Undone = table.Column<bool>(type: "boolean", nullable: false),
                    Changes = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StashSteps", x => x.Id);
                    table.ForeignKey(
                        name: "FK_StashSteps_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_StashItems_KeeperId_MadeAt",
                table: "StashItems",
                columns: new[] { "KeeperId", "MadeAt" });

            migrationBuilder.CreateIndex(
                name: "IX_StashSteps_KeeperId_Sequence",
                table: "StashSteps",
                columns: new[] { "KeeperId", "Sequence" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "StashItems");

            migrationBuilder.DropTable(
                name: "StashSteps");

            migrationBuilder.DropColumn(
                name: "People",
                table: "Photos");

            migrationBuilder.DropColumn(
                name: "Currency",
                table: "LabOrders");

            migrationBuilder.DropColumn(
                name: "Price",
                table: "LabOrders");

            migrationBuilder.DropColumn(
                name: "FolderDay",
                table: "ImportFiles");
        }
    }
}
