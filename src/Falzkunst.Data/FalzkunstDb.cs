using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Running;
using Falzkunst.Data.Jobs;
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
    public DbSet<PictureRow> Pictures => Set<PictureRow>();
    public DbSet<FaceRow> Faces => Set<FaceRow>();
    public DbSet<StockRow> Stocks => Set<StockRow>();
    public DbSet<CraftToolRow> CraftTools => Set<CraftToolRow>();
    public DbSet<DrawerChangeRow> DrawerChanges => Set<DrawerChangeRow>();
    public DbSet<DrawerMovementRow> DrawerMovements => Set<DrawerMovementRow>();
    public DbSet<MachineRow> Machines => Set<MachineRow>();
    public DbSet<RunRow> Runs => Set<RunRow>();
    public DbSet<RunEventRow> RunEvents => Set<RunEventRow>();
    public DbSet<JobRow> Jobs => Set<JobRow>();
    public DbSet<KnownResultRow> KnownResults => Set<KnownResultRow>();
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    /// <summary>Tells every process that what it keeps of a drawer no longer holds, once the transaction is through.</summary>
    internal Task<int> DrawerChangedAsync(Guid owner, CancellationToken stop) =>
        Workshops.Where(w => w.Id == owner).ExecuteUpdateAsync(u => u.SetProperty(w => w.DrawerVersion, w => w.DrawerVersion + 1), stop);

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        ProjectTables(modelBuilder);
        CatalogueTables(modelBuilder);
        RunTables(modelBuilder);
        JobTables(modelBuilder);
        modelBuilder.Entity<LookRuleRow>(e =>
        {
            e.ToTable("look_rules", t => t.HasCheckConstraint("ck_look_rules_operation", $"operation in ({string.Join(", ", Enum.GetValues<Operation>().Select(o => $"'{o.Word()}'"))})"));
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(r => r.Owner);
            e.Property(r => r.Origin).HasMaxLength(NameLimits.Origin);
            e.HasIndex(r => new { r.Owner, r.Position });
        });
    }

    private static void ProjectTables(ModelBuilder model)
    {
        model.Entity<WorkshopRow>().ToTable("workshops");
        model.Entity<ProjectRow>(e =>
        {
            e.ToTable("projects", t => t.HasCheckConstraint("ck_projects_sane", "head >= 1 and last_revision >= head and length(name) > 0 and pieces >= 0 and stocks >= 0 and findings >= 0"));
            e.HasAlternateKey(p => new { p.Id, p.Owner });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.Owner);
            e.Property(p => p.Name).HasMaxLength(NameLimits.Project);
            e.HasIndex(p => new { p.Owner, p.ChangedAt });
        });
        model.Entity<RevisionRow>(e =>
        {
            e.ToTable("revisions", t => t.HasCheckConstraint("ck_revisions_sane", "number >= 1 and (parent is null) = (number = 1) and parent < number and (parent is null) = (edit is null)"));
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(r => new { r.ProjectId, r.Parent }).OnDelete(DeleteBehavior.Restrict);
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
            e.ToTable("art_files", t => t.HasCheckConstraint("ck_art_files_sane", "scale > 0 and width_mm >= 0 and height_mm >= 0 and lines >= 0 and pieces >= 0"));
            e.Property(a => a.Scale).HasDefaultValue(1.0);
            e.Property(a => a.Pictures).HasColumnType("jsonb").HasDefaultValueSql("'[]'");
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(a => new { a.ProjectId, a.Owner }).HasPrincipalKey(p => new { p.Id, p.Owner });
            e.Property(a => a.FileName).HasMaxLength(NameLimits.FileName);
            e.Property(a => a.Origin).HasMaxLength(NameLimits.Origin);
            e.Property(a => a.RulesUsed).HasColumnType("jsonb").HasDefaultValueSql("'[]'");
            e.Property(a => a.Notes).HasColumnType("jsonb");
        });
    }

    private static void CatalogueTables(ModelBuilder model)
    {
        model.Entity<StockRow>(e =>
        {
            e.ToTable("stocks", t => t.HasCheckConstraint("ck_stocks_sane", $"thickness_mm > 0 and narrowest_mm > 0 and grams_per_square_metre > 0 and length(name) > 0 and colour ~ '^#[0-9A-Fa-f]{{6}}$' and pattern in ({Named<StockPattern>()}) and direction in ({Named<StockDirection>()}) and suits <@ array[{Named<Tool>()}]::text[]"));
            e.HasKey(s => new { s.Owner, s.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(s => s.Owner);
            e.HasMany(s => s.Sheets).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
            e.HasMany(s => s.Offcuts).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
            e.HasMany(s => s.Sets).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey });
            e.Property(s => s.Name).HasMaxLength(DrawerRules.LongestName);
            e.Property(s => s.Kind).HasMaxLength(DrawerRules.LongestName);
            e.Property(s => s.Pattern).HasDefaultValue(nameof(StockPattern.Plain));
            e.Property(s => s.Direction).HasDefaultValue(nameof(StockDirection.None));
            e.Property(s => s.Suits).HasDefaultValueSql("'{}'");
            e.Property(s => s.SetInUse).HasMaxLength(DrawerRules.LongestName).HasDefaultValue(Stock.UsualSet);
            e.Property(s => s.Version).IsConcurrencyToken();
        });
        model.Entity<StockSetRow>(e =>
        {
            e.ToTable("stock_sets");
            e.HasKey(s => new { s.Owner, s.StockKey, s.Name });
            e.Property(s => s.Name).HasMaxLength(DrawerRules.LongestName);
            e.HasMany(s => s.Settings).WithOne().HasForeignKey(s => new { s.Owner, s.StockKey, s.SetName });
        });
        model.Entity<PictureRow>(e =>
        {
            e.ToTable("pictures", t => t.HasCheckConstraint("ck_pictures_sane", "length(content) = 64 and pixels_across > 0 and pixels_down > 0 and length(file) > 0 and length(screen) > 0 and (dots_per_inch is null or dots_per_inch > 0)"));
            e.HasKey(p => new { p.Owner, p.Content });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(p => p.Owner);
            e.Property(p => p.Content).HasMaxLength(64);
            e.Property(p => p.MediaType).HasMaxLength(40);
        });
        model.Entity<FaceRow>(e =>
        {
            e.ToTable("faces", t => t.HasCheckConstraint("ck_faces_sane", "length(name) > 0 and length(content) > 0"));
            e.HasKey(f => new { f.Owner, f.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(f => f.Owner);
            e.Property(f => f.Key).HasMaxLength(40);
            e.Property(f => f.Name).HasMaxLength(80);
        });
        model.Entity<CraftToolRow>(e =>
        {
            e.ToTable("craft_tools", t => t.HasCheckConstraint("ck_craft_tools_sane", $"length(name) > 0 and kind in ({Named<CraftToolKind>()}) and (colour is null or colour ~ '^#[0-9A-Fa-f]{{6}}$') and (width_mm is null or width_mm > 0 or (kind = 'Printer' and width_mm = 0))"));
            e.HasKey(t => new { t.Owner, t.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(t => t.Owner);
            e.Property(t => t.Name).HasMaxLength(DrawerRules.LongestName);
            e.Property(t => t.Version).IsConcurrencyToken();
        });
        model.Entity<DrawerChangeRow>(e =>
        {
            e.ToTable("drawer_changes", t => t.HasCheckConstraint("ck_drawer_changes_sane", "number >= 1"));
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(c => c.Owner);
            e.HasIndex(c => new { c.Owner, c.Number }).IsUnique();
            e.HasMany(c => c.Things).WithOne().HasForeignKey(t => t.ChangeId);
        });
        model.Entity<DrawerChangeThingRow>(e =>
        {
            e.ToTable("drawer_change_things", t => t.HasCheckConstraint("ck_drawer_change_things_sane", "kind in ('stock', 'machine', 'tool')"));
            e.HasKey(t => new { t.ChangeId, t.Kind, t.Key });
            e.Property(t => t.Before).HasColumnType("jsonb");
            e.Property(t => t.After).HasColumnType("jsonb");
        });
        model.Entity<StockSheetRow>(e =>
        {
            e.ToTable("stock_sheets", t => t.HasCheckConstraint("ck_stock_sheets_sane", "width_mm > 0 and height_mm > 0 and count >= 0"));
            e.HasKey(s => new { s.Owner, s.StockKey, s.Name });
        });
        model.Entity<StockOffcutRow>(e =>
        {
            e.ToTable("stock_offcuts");
            e.HasOne<DrawerMovementRow>().WithMany().HasForeignKey(o => o.Movement);
            e.HasKey(o => new { o.Owner, o.StockKey, o.Name });
            e.Property(o => o.Name).HasMaxLength(80);
        });
        model.Entity<DrawerMovementRow>(e =>
        {
            e.ToTable("drawer_movements", t => t.HasCheckConstraint("ck_drawer_movements_by", "(revision is null) <> (run_id is null)"));
            e.HasOne<RunRow>().WithMany().HasForeignKey(m => m.RunId);
            e.HasIndex(m => m.RunId).IsUnique();
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(m => new { m.ProjectId, m.Revision });
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(m => new { m.ProjectId, m.Owner }).HasPrincipalKey(p => new { p.Id, p.Owner });
            e.HasOne<StockRow>().WithMany().HasForeignKey(m => new { m.Owner, m.StockKey });
            e.Property(m => m.Took).HasMaxLength(80);
            e.HasIndex(m => new { m.Owner, m.StockKey });
            e.HasIndex(m => new { m.ProjectId, m.SheetId }, "ix_drawer_movements_sheet").IsUnique().HasFilter("is_active and run_id is null");
        });
        model.Entity<StockSettingRow>(e =>
        {
            e.ToTable("stock_settings", t => t.HasCheckConstraint("ck_stock_settings_sane", $"force_grams > 0 and speed_mm_per_second > 0 and times >= 1 and tool in ({Named<Tool>()})"));
            e.HasKey(s => new { s.Owner, s.StockKey, s.SetName, s.Tool });
            e.Property(s => s.SetName).HasMaxLength(DrawerRules.LongestName).HasDefaultValue(Stock.UsualSet);
        });
        model.Entity<MachineRow>(e =>
        {
            e.ToTable("machines", t => t.HasCheckConstraint("ck_machines_sane", "mat_width_mm > 0 and mat_height_mm > 0 and top_speed > 0 and acceleration > 0"));
            e.HasKey(m => new { m.Owner, m.Key });
            e.HasOne<WorkshopRow>().WithMany().HasForeignKey(m => m.Owner);
            e.HasMany(m => m.Holders).WithOne().HasForeignKey(h => new { h.Owner, h.MachineKey });
            e.HasMany(m => m.OtherMats).WithOne().HasForeignKey(h => new { h.Owner, h.MachineKey });
            e.HasMany(m => m.Files).WithOne().HasForeignKey(h => new { h.Owner, h.MachineKey });
            e.Property(m => m.Name).HasMaxLength(DrawerRules.LongestName);
            e.Property(m => m.MatName).HasMaxLength(DrawerRules.LongestName).HasDefaultValue("mat");
            e.Property(m => m.Version).IsConcurrencyToken();
        });
        model.Entity<MachineMatRow>(e =>
        {
            e.ToTable("machine_mats", t => t.HasCheckConstraint("ck_machine_mats_sane", "width_mm > 0 and height_mm > 0"));
            e.HasKey(m => new { m.Owner, m.MachineKey, m.Name });
            e.Property(m => m.Name).HasMaxLength(DrawerRules.LongestName);
        });
        model.Entity<MachineFileRow>(e =>
        {
            e.ToTable("machine_files", t => t.HasCheckConstraint("ck_machine_files_sane", $"units_per_mm > 0 and format in ({Named<MachineFormat>()}) and origin in ({Named<FileOrigin>()})"));
            e.HasKey(m => new { m.Owner, m.MachineKey, m.Format });
        });
        model.Entity<HolderRow>(e =>
        {
            e.ToTable("holders");
            e.HasKey(h => new { h.Owner, h.MachineKey, h.Name });
        });
    }

    private static void JobTables(ModelBuilder model)
    {
        model.Entity<JobRow>(e =>
        {
            e.ToTable("jobs", t =>
            {
                t.HasCheckConstraint("ck_jobs_phase", $"phase in ({Named<JobPhase>()})");
                t.HasCheckConstraint("ck_jobs_kind", $"kind in ({Named<JobKind>()})");
                t.HasCheckConstraint("ck_jobs_sane", "progress between 0 and 1 and attempts >= 0 and answers >= 0");
            });
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(j => new { j.ProjectId, j.Owner }).HasPrincipalKey(p => new { p.Id, p.Owner });
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(j => new { j.ProjectId, j.Revision });
            e.Property(j => j.Subject).HasMaxLength(80);
            e.Property(j => j.Result).HasColumnType("jsonb");
            e.HasIndex(j => new { j.Phase, j.AskedAt });
            e.HasIndex(j => new { j.ProjectId, j.Kind, j.Subject }, "ix_jobs_active").IsUnique().HasFilter("phase in ('Waiting', 'Working')");
        });
        model.Entity<KnownResultRow>(e =>
        {
            e.ToTable("known_results");
            e.HasKey(r => r.Key);
            e.Property(r => r.Key).HasMaxLength(64);
        });
    }

    /// <summary>The names of an enumeration as SQL has them in a list.</summary>
    private static string Named<T>() where T : struct, Enum => string.Join(", ", Enum.GetNames<T>().Select(n => $"'{n}'"));

    private static void RunTables(ModelBuilder model)
    {
        model.Entity<RunRow>(e =>
        {
            e.ToTable("runs", t =>
            {
                t.HasCheckConstraint("ck_runs_phase", $"phase in ({Named<RunPhase>()})");
                t.HasCheckConstraint("ck_runs_sane", "step >= 0 and line >= 0 and seconds_into >= 0 and machine_seconds >= 0 and speed_up between 1 and 1000 and last_event >= 0");
            });
            e.Property(r => r.SchemaVersion).HasDefaultValue(1);
            e.HasOne<ProjectRow>().WithMany().HasForeignKey(r => new { r.ProjectId, r.Owner }).HasPrincipalKey(p => new { p.Id, p.Owner });
            e.HasIndex(r => new { r.Owner, r.Machine }, "ix_runs_unfinished").IsUnique().HasFilter("phase not in ('Done', 'Stopped', 'Broken')");
            e.HasOne<RevisionRow>().WithMany().HasForeignKey(r => new { r.ProjectId, r.Revision }).OnDelete(DeleteBehavior.Restrict);
            e.HasOne<PartRow>().WithMany().HasForeignKey(r => r.PlanHash).OnDelete(DeleteBehavior.Restrict);
            e.HasIndex(r => r.Phase);
            e.HasIndex(r => new { r.ProjectId, r.BegunAt });
        });
        model.Entity<RunEventRow>(e =>
        {
            e.ToTable("run_events", t => t.HasCheckConstraint("ck_run_events_kind", $"kind in ({Named<RunHappeningKind>()})"));
            e.HasKey(r => new { r.RunId, r.Number });
            e.HasOne<RunRow>().WithMany().HasForeignKey(r => r.RunId);
        });
    }
}
