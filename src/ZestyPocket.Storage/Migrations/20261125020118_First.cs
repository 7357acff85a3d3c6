using System;
using System.Collections.Generic;
using Microsoft.EntityFrameworkCore.Migrations;
using NodaTime;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace ZestyPocket.Storage.Migrations
{
    /// <inheritdoc />
    public partial class First : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Keepers",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Keepers", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Albums",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Name = table.Column<string>(type: "character varying(200)", maxLength: 200, nullable: false),
                    FirstDay = table.Column<LocalDate>(type: "date", nullable: false),
                    BodyWidth = table.Column<long>(type: "bigint", nullable: false),
                    BodyHeight = table.Column<long>(type: "bigint", nullable: false),
                    Measures = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    LateNightCutOff = table.Column<LocalTime>(type: "time", nullable: false),
                    Demo = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    PutAwayAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadEditId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Albums", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Albums_Keepers_KeeperId",
                        column: x => x.KeeperId,
                        principalTable: "Keepers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Edits",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    Sequence = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityAlwaysColumn),
                    UnitIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    Summary = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    Undone = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Edits", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Edits_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PrintJobs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    KeeperId = table.Column<Guid>(type: "uuid", nullable: false),
                    RequestKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    UnitIds = table.Column<List<Guid>>(type: "uuid[]", nullable: false),
                    PaperKey = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    MarginEmu = table.Column<long>(type: "bigint", nullable: false),
                    GapEmu = table.Column<long>(type: "bigint", nullable: false),
                    State = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    CancelAsked = table.Column<bool>(type: "boolean", nullable: false),
                    PagesDone = table.Column<int>(type: "integer", nullable: false),
                    PagesTotal = table.Column<int>(type: "integer", nullable: false),
                    Problem = table.Column<string>(type: "character varying(1000)", maxLength: 1000, nullable: true),
                    MadeAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    EndedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PrintJobs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PrintJobs_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Protectors",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    Ordinal = table.Column<int>(type: "integer", nullable: false),
                    DesignKey = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: false),
                    OuterWidth = table.Column<long>(type: "bigint", nullable: false),
                    OuterHeight = table.Column<long>(type: "bigint", nullable: false),
                    RingStrip = table.Column<long>(type: "bigint", nullable: false),
                    Ease = table.Column<long>(type: "bigint", nullable: false),
                    ClearSizes = table.Column<string>(type: "jsonb", nullable: false),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadEditId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Protectors", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Protectors_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Units",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    Ordinal = table.Column<int>(type: "integer", nullable: false),
                    Kind = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    FirstDay = table.Column<LocalDate>(type: "date", nullable: false),
                    LastDay = table.Column<LocalDate>(type: "date", nullable: false),
                    Content = table.Column<string>(type: "jsonb", nullable: false),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadEditId = table.Column<Guid>(type: "uuid", nullable: true),
                    CardsTold = table.Column<int>(type: "integer", nullable: false),
                    PiecesPlaced = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Units", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Units_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "EditChange",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    EditId = table.Column<Guid>(type: "uuid", nullable: false),
                    Subject = table.Column<string>(type: "character varying(32)", maxLength: 32, nullable: false),
                    SubjectId = table.Column<Guid>(type: "uuid", nullable: false),
                    RevisionAfter = table.Column<int>(type: "integer", nullable: false),
                    PreviousHeadEditId = table.Column<Guid>(type: "uuid", nullable: true),
                    Before = table.Column<string>(type: "jsonb", nullable: false),
                    After = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EditChange", x => x.Id);
                    table.ForeignKey(
                        name: "FK_EditChange_Edits_EditId",
                        column: x => x.EditId,
                        principalTable: "Edits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Leaves",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    Ordinal = table.Column<int>(type: "integer", nullable: false),
                    ProtectorId = table.Column<Guid>(type: "uuid", nullable: false),
                    FrontUnitId = table.Column<Guid>(type: "uuid", nullable: true),
                    BackUnitId = table.Column<Guid>(type: "uuid", nullable: true),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadEditId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Leaves", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Leaves_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Leaves_Protectors_ProtectorId",
                        column: x => x.ProtectorId,
                        principalTable: "Protectors",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Leaves_Units_BackUnitId",
                        column: x => x.BackUnitId,
                        principalTable: "Units",
                        principalColumn: "Id");
                    table.ForeignKey(
                        name: "FK_Leaves_Units_FrontUnitId",
                        column: x => x.FrontUnitId,
                        principalTable: "Units",
                        principalColumn: "Id");
                });

            migrationBuilder.CreateTable(
                name: "Photos",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "uuid", nullable: false),
                    AlbumId = table.Column<Guid>(type: "uuid", nullable: false),
                    UnitId = table.Column<Guid>(type: "uuid", nullable: true),
                    Sha256 = table.Column<string>(type: "character(64)", fixedLength: true, maxLength: 64, nullable: false),
                    FileName = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: false),
                    Format = table.Column<string>(type: "character varying(16)", maxLength: 16, nullable: false),
                    Bytes = table.Column<long>(type: "bigint", nullable: false),
                    Width = table.Column<int>(type: "integer", nullable: false),
                    Height = table.Column<int>(type: "integer", nullable: false),
                    Recorded = table.Column<LocalDateTime>(type: "timestamp without time zone", nullable: true),
                    OffsetMinutes = table.Column<int>(type: "integer", nullable: true),
                    Camera = table.Column<string>(type: "character varying(100)", maxLength: 100, nullable: true),
                    Latitude = table.Column<double>(type: "double precision", nullable: true),
                    Longitude = table.Column<double>(type: "double precision", nullable: true),
                    Day = table.Column<LocalDate>(type: "date", nullable: true),
                    DaySetByKeeper = table.Column<bool>(type: "boolean", nullable: false),
                    AddedAt = table.Column<Instant>(type: "timestamp with time zone", nullable: false),
                    LeftOut = table.Column<bool>(type: "boolean", nullable: false),
                    Revision = table.Column<int>(type: "integer", nullable: false),
                    HeadEditId = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Photos", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Photos_Albums_AlbumId",
                        column: x => x.AlbumId,
                        principalTable: "Albums",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Photos_Units_UnitId",
                        column: x => x.UnitId,
                        principalTable: "Units",
                        principalColumn: "Id");
                });

            migrationBuilder.InsertData(
                table: "Keepers",
                columns: new[] { "Id", "Name" },
                values: new object[] { new Guid("00000000-0000-7000-8000-000000000001"), "Local keeper" });

            migrationBuilder.CreateIndex(
                name: "IX_Albums_KeeperId",
                table: "Albums",
                column: "KeeperId");

            migrationBuilder.CreateIndex(
                name: "IX_EditChange_EditId",
                table: "EditChange",
                column: "EditId");

            migrationBuilder.CreateIndex(
                name: "IX_EditChange_SubjectId",
                table: "EditChange",
                column: "SubjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Edits_AlbumId",
                table: "Edits",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_Edits_Sequence",
                table: "Edits",
                column: "Sequence",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Edits_UnitIds",
                table: "Edits",
                column: "UnitIds")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "IX_Leaves_AlbumId_Ordinal",
                table: "Leaves",
                columns: new[] { "AlbumId", "Ordinal" });

            migrationBuilder.CreateIndex(
                name: "IX_Leaves_BackUnitId",
                table: "Leaves",
                column: "BackUnitId");

            migrationBuilder.CreateIndex(
                name: "IX_Leaves_FrontUnitId",
                table: "Leaves",
                column: "FrontUnitId");

            migrationBuilder.CreateIndex(
                name: "IX_Leaves_ProtectorId",
                table: "Leaves",
                column: "ProtectorId");

            migrationBuilder.CreateIndex(
                name: "IX_Photos_AlbumId_Sha256",
                table: "Photos",
                columns: new[] { "AlbumId", "Sha256" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Photos_UnitId",
                table: "Photos",
                column: "UnitId");

            migrationBuilder.CreateIndex(
                name: "IX_PrintJobs_AlbumId",
                table: "PrintJobs",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_PrintJobs_KeeperId_RequestKey",
                table: "PrintJobs",
                columns: new[] { "KeeperId", "RequestKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Protectors_AlbumId",
                table: "Protectors",
                column: "AlbumId");

            migrationBuilder.CreateIndex(
                name: "IX_Units_AlbumId_FirstDay",
                table: "Units",
                columns: new[] { "AlbumId", "FirstDay" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "EditChange");

            migrationBuilder.DropTable(
                name: "Leaves");

            migrationBuilder.DropTable(
                name: "Photos");

            migrationBuilder.DropTable(
                name: "PrintJobs");

            migrationBuilder.DropTable(
                name: "Edits");

            migrationBuilder.DropTable(
                name: "Protectors");

            migrationBuilder.DropTable(
                name: "Units");

            migrationBuilder.DropTable(
                name: "Albums");

            migrationBuilder.DropTable(
                name: "Keepers");
        }
    }
}
