using Falzkunst.Data.Rows;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data;

/// <summary>The tables. Every row that belongs to somebody has its owner's key.</summary>
public sealed class FalzkunstDb(DbContextOptions<FalzkunstDb> options) : DbContext(options), IDataProtectionKeyContext
{
    public DbSet<WorkshopRow> Workshops => Set<WorkshopRow>();
    public DbSet<ProjectRow> Projects => Set<ProjectRow>();
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();
    public DbSet<PartRow> Parts => Set<PartRow>();
    public DbSet<ArtFileRow> ArtFiles => Set<ArtFileRow>();
    public DbSet<LookRuleRow> LookRules => Set<LookRuleRow>();
    public DbSet<StockRow> Stocks => Set<StockRow>();
    public DbSet<MachineRow> Machines => Set<MachineRow>();
    public DbSet<RunRow> Runs => Set<RunRow>();
    public DbSet<RunEventRow> RunEvents => Set<RunEventRow>();
    public DbSet<SettlingRow> Settlings => Set<SettlingRow>();
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        ProjectTables(modelBuilder);
        CatalogueTables(modelBuilder);
        RunTables(modelBuilder);
        modelBuilder.Entity<SettlingRow>(e =>
        {
            e.ToTable("settlings", t => t.HasCheckConstraint("ck_settlings_sane", "seconds > 0"));
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(s => s.Owner);
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(s => new { s.ProjectId, s.Revision });
            e.Property(s => s.Stock).HasMaxLength(80);
            e.Property(s => s.Best).HasColumnType("jsonb");
            e.Property(s => s.SchemaVersion).HasDefaultValue(1);
            e.HasIndex(s => s.Phase);
            e.HasIndex(s => new { s.ProjectId, s.Stock, s.AskedAt });
        });
        modelBuilder.Entity<LookRuleRow>(e =>
        {
            e.ToTable("look_rules");
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.Owner);
            e.Property(r => r.Origin).HasMaxLength(80);
            e.HasIndex(r => new { r.Owner, r.Position });
        });
    }

    private static void ProjectTables(ModelBuilder model)
    {
        model.Entity<WorkshopRow>().ToTable("workshops");
        model.Entity<ProjectRow>(e =>
        {
            e.ToTable("projects");
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.Owner);
            e.Property(p => p.Name).HasMaxLength(120);
            e.HasIndex(p => new { p.Owner, p.ChangedAt });
        });
        model.Entity<RevisionRow>(e =>
        {
            e.ToTable("revisions");
            e.HasKey(r => new { r.ProjectId, r.Number });
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(r => r.ProjectId);
            e.Property(r => r.Edit).HasColumnType("jsonb");
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.SetOutHash).OnDelete(DeleteBehavior.Restrict);
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.DesignHash).OnDelete(DeleteBehavior.Restrict);
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.SheetsHash).OnDelete(DeleteBehavior.Restrict);
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.VariantsHash).OnDelete(DeleteBehavior.Restrict);
        });
        model.Entity<PartRow>(e =>
        {
            e.ToTable("parts");
            e.HasKey(p => p.Hash);
            e.Property(p => p.Hash).HasMaxLength(64);
        });
        model.Entity<ArtFileRow>(e =>
        {
            e.ToTable("art_files");
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(a => a.ProjectId);
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(a => a.Owner);
            e.Property(a => a.FileName).HasMaxLength(200);
            e.Property(a => a.Origin).HasMaxLength(80);
            e.Property(a => a.RulesUsed).HasColumnType("jsonb").HasDefaultValueSql("'[]'");
            e.Property(a => a.Notes).HasColumnType("jsonb");
        });
    }

    private static void CatalogueTables(ModelBuilder model)
    {
        model.Entity<StockRow>(e =>
        {
            e.ToTable("stocks", t => t.HasCheckConstraint("ck_stocks_sane", "thickness_mm > 0 and narrowest_mm > 0 and grams_per_square_metre > 0"));
            e.HasKey(s => new { s.Owner, s.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(s => s.Owner);
            e.HasMany(s => s.Sheets).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
            e.HasMany(s => s.Offcuts).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
            e.HasMany(s => s.Settings).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
        });
        model.Entity<StockSheetRow>(e =>
        {
            e.ToTable("stock_sheets", t => t.HasCheckConstraint("ck_stock_sheets_sane", "width_mm > 0 and height_mm > 0 and count >= 0"));
            e.HasKey(s => new { s.Owner, s.StockKey, s.Name });
        });
        model.Entity<StockOffcutRow>(e =>
        {
            e.ToTable("stock_offcuts");
            e.HasKey(o => new { o.Owner, o.StockKey, o.Name });
            e.Property(o => o.Name).HasMaxLength(80);
        });
        model.Entity<StockSettingRow>(e =>
        {
            e.ToTable("stock_settings", t => t.HasCheckConstraint("ck_stock_settings_sane", "force_grams > 0 and speed_mm_per_second > 0 and times >= 1"));
            e.HasKey(s => new { s.Owner, s.StockKey, s.Tool });
        });
        model.Entity<MachineRow>(e =>
        {
            e.ToTable("machines", t => t.HasCheckConstraint("ck_machines_sane", "mat_width_mm > 0 and mat_height_mm > 0 and top_speed > 0 and acceleration > 0"));
            e.HasKey(m => new { m.Owner, m.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(m => m.Owner);
            e.HasMany(m => m.Holders).WithOne().HasForeignKey(h => new { h.Owner, h.MachineKey });
        });
        model.Entity<HolderRow>(e =>
        {
            e.ToTable("holders");
            e.HasKey(h => new { h.Owner, h.MachineKey, h.Name });
        });
    }

    private static void RunTables(ModelBuilder model)
    {
        model.Entity<RunRow>(e =>
        {
            e.ToTable("runs");
            e.Property(r => r.SchemaVersion).HasDefaultValue(1);
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.Owner);
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(r => new { r.ProjectId, r.Revision }).OnDelete(DeleteBehavior.Restrict);
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.PlanHash).OnDelete(DeleteBehavior.Restrict);
            e.HasIndex(r => r.Phase);
            e.HasIndex(r => new { r.ProjectId, r.BegunAt });
        });
        model.Entity<RunEventRow>(e =>
        {
            e.ToTable("run_events");
            e.HasKey(r => new { r.RunId, r.Number });
            e.HasOne<RunRow>().WithMany().HasForeignKey(r => r.RunId);
        });
    }
}
