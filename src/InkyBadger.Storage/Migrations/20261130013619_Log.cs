using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace InkyBadger.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Log : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "log_entries",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    DesignId = table.Column<string>(type: "TEXT", nullable: false),
                    BankId = table.Column<string>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    WrittenUtc = table.Column<DateTime>(type: "TEXT", nullable: false),
                    DeletedAtSeenH = table.Column<double>(type: "REAL", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_log_entries", x => x.Id);
                }
            );

            migrationBuilder.CreateTable(
                name: "log_readings",
                columns: table => new
                {
                    Key = table.Column<long>(type: "INTEGER", nullable: false),
                    Volts = table.Column<double>(type: "REAL", nullable: true),
                    Amps = table.Column<double>(type: "REAL", nullable: true),
                    Soc = table.Column<double>(type: "REAL", nullable: true),
                    TemperatureC = table.Column<double>(type: "REAL", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_log_readings", x => x.Key);
                }
            );

            migrationBuilder.CreateTable(
                name: "log_series",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    DesignId = table.Column<string>(type: "TEXT", nullable: false),
                    BankId = table.Column<string>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", maxLength: 20, nullable: false),
                    Name = table.Column<string>(type: "TEXT", maxLength: 120, nullable: false),
                    Seed = table.Column<double>(type: "REAL", nullable: true),
                    ReceivedUtc = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Ready = table.Column<bool>(type: "INTEGER", nullable: false),
                    FirstAt = table.Column<long>(type: "INTEGER", nullable: false),
                    LastAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Count = table.Column<long>(type: "INTEGER", nullable: false),
                    DeletedAtSeenH = table.Column<double>(type: "REAL", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_log_series", x => x.Id);
                }
            );

            migrationBuilder.CreateTable(
                name: "log_slots",
                columns: table => new
                {
                    Key = table.Column<long>(type: "INTEGER", nullable: false),
                    Hours = table.Column<double>(type: "REAL", nullable: false),
                    AhOut = table.Column<double>(type: "REAL", nullable: false),
                    AhIn = table.Column<double>(type: "REAL", nullable: false),
                    WhOut = table.Column<double>(type: "REAL", nullable: false),
                    WhIn = table.Column<double>(type: "REAL", nullable: false),
                    MostOutA = table.Column<double>(type: "REAL", nullable: false),
                    MostInA = table.Column<double>(type: "REAL", nullable: false),
                    LowestV = table.Column<double>(type: "REAL", nullable: true),
                    HighestV = table.Column<double>(type: "REAL", nullable: true),
                    LastSoc = table.Column<double>(type: "REAL", nullable: true),
                    LowestSoc = table.Column<double>(type: "REAL", nullable: true),
                    MeanC = table.Column<double>(type: "REAL", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_log_slots", x => x.Key);
                }
            );

            migrationBuilder.CreateIndex(
                name: "IX_log_entries_DesignId_BankId",
                table: "log_entries",
                columns: new[] { "DesignId", "BankId" }
            );

            migrationBuilder.CreateIndex(
                name: "IX_log_series_DesignId_BankId",
                table: "log_series",
                columns: new[] { "DesignId", "BankId" }
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "log_entries");

            migrationBuilder.DropTable(name: "log_readings");

            migrationBuilder.DropTable(name: "log_series");

            migrationBuilder.DropTable(name: "log_slots");
        }
    }
}
