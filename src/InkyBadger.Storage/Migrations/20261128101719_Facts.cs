using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace InkyBadger.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Facts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<double>(name: "DeletedAtSeenH", table: "designs", type: "REAL", nullable: true);

            migrationBuilder.CreateTable(
                name: "facts",
                columns: table => new
                {
                    Name = table.Column<string>(type: "TEXT", maxLength: 40, nullable: false),
                    Value = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_facts", x => x.Name);
                }
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "facts");

            migrationBuilder.DropColumn(name: "DeletedAtSeenH", table: "designs");
        }
    }
}
