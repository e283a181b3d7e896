using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace InkyBadger.Storage.Migrations
{
    /// <inheritdoc />
    public partial class History : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(name: "StateAt", table: "designs", type: "INTEGER", nullable: false, defaultValue: 0L);

            migrationBuilder.CreateTable(
                name: "states",
                columns: table => new
                {
                    DesignId = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<long>(type: "INTEGER", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                    WhenUtc = table.Column<DateTime>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_states", x => new { x.DesignId, x.Number });
                    table.ForeignKey(
                        name: "FK_states_designs_DesignId",
                        column: x => x.DesignId,
                        principalTable: "designs",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "states");

            migrationBuilder.DropColumn(name: "StateAt", table: "designs");
        }
    }
}
