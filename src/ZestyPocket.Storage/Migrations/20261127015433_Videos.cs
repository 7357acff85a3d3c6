using System;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Videos : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Videos",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    Sha256 = table.Column<string>(type: "character(64)", fixedLength: true, maxLength: 64, nullable: false),
                    FileName = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    Bytes = table.Column<long>(type: "bigint", nullable: false),
                    Width = table.Column<int>(type: "integer", nullable: false),
                    Height = table.Column<int>(type: "integer", nullable: false),
                    Milliseconds = table.Column<long>(type: "bigint", nullable: false),
                    FramesPerSecond = table.Column<double>(type: "double precision", nullable: false),
                    Started = table.Column<LocalDateTime>(type: "timestamp without time zone", nullable: true),
                    OffsetMinutes = table.Column<int>(type: "integer", nullable: true),
                    StartedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    Camera = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: true),
                    Proposed = table.Column<long[]>(type: "bigint[]", nullable: false),
                    Taken = table.Column<long[]>(type: "bigint[]", nullable: false),
                    Kept = table.Column<bool>(type: "boolean", nullable: false),
                    AddedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Videos", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Videos_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Videos_AlbumId_Sha256",
                table: "Videos",
                columns: new[] { "AlbumId", "Sha256" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Videos");
        }
    }
}
