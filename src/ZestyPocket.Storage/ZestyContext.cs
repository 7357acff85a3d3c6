using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using ZestyPocket.Core.Measures;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Printing;

namespace ZestyPocket.Storage;

/// <summary>The database. Everything but the photo originals is in it.</summary>
public sealed class ZestyContext(DbContextOptions<ZestyContext> options) : DbContext(options)
{
    public DbSet<Keeper> Keepers => Set<Keeper>();

    public DbSet<Album> Albums => Set<Album>();

    public DbSet<AlbumProtector> Protectors => Set<AlbumProtector>();

    public DbSet<AlbumUnit> Units => Set<AlbumUnit>();

    public DbSet<AlbumLeaf> Leaves => Set<AlbumLeaf>();

    public DbSet<Photo> Photos => Set<Photo>();

    public DbSet<Edit> Edits => Set<Edit>();

    public DbSet<PrintJob> PrintJobs => Set<PrintJob>();

    /// <summary>How every part of the program sets the provider up.</summary>
    public static void Configure(DbContextOptionsBuilder builder, string connectionString) =>
        builder.UseNpgsql(connectionString, npgsql => npgsql.UseNodaTime());

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Length>().HaveConversion<LengthInEmu>();
        configurationBuilder.Properties<Enum>().HaveConversion<string>().HaveMaxLength(32);
    }

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<Keeper>(keeper =>
        {
            keeper.Property(k => k.Name).HasMaxLength(200);
            keeper.HasData(new Keeper { Id = Keeper.LocalId, Name = "Local keeper" });
        });

        modelBuilder.Entity<Album>(album =>
        {
            album.Property(a => a.Name).HasMaxLength(200);
            album.Property(a => a.Revision).IsConcurrencyToken();
            album.HasOne<Keeper>().WithMany().HasForeignKey(a => a.KeeperId);
            album.HasMany(a => a.Protectors).WithOne().HasForeignKey(p => p.AlbumId);
            album.HasMany(a => a.Units).WithOne().HasForeignKey(u => u.AlbumId);
            album.HasMany(a => a.Leaves).WithOne().HasForeignKey(l => l.AlbumId);
        });

        modelBuilder.Entity<AlbumProtector>(protector =>
        {
            protector.Property(p => p.DesignKey).HasMaxLength(100);
            protector.Property(p => p.Revision).IsConcurrencyToken();
            protector.Property(p => p.ClearSizes).HasColumnType("jsonb");
        });

        modelBuilder.Entity<AlbumUnit>(unit =>
        {
            unit.Property(u => u.Content).HasColumnType("jsonb");
            unit.Property(u => u.Revision).IsConcurrencyToken();
            unit.HasIndex(u => new { u.AlbumId, u.FirstDay }).IsUnique();
            unit.Ignore(u => u.Week);
        });

        modelBuilder.Entity<AlbumLeaf>(leaf =>
        {
            leaf.Property(l => l.Revision).IsConcurrencyToken();
            leaf.HasOne<AlbumProtector>().WithMany().HasForeignKey(l => l.ProtectorId);
            leaf.HasOne<AlbumUnit>().WithMany().HasForeignKey(l => l.FrontUnitId);
            leaf.HasOne<AlbumUnit>().WithMany().HasForeignKey(l => l.BackUnitId);
            leaf.HasIndex(l => new { l.AlbumId, l.Ordinal });
        });

        modelBuilder.Entity<Photo>(photo =>
        {
            photo.Property(p => p.Sha256).HasMaxLength(64).IsFixedLength();
            photo.Property(p => p.FileName).HasMaxLength(300);
            photo.Property(p => p.Format).HasMaxLength(16);
            photo.Property(p => p.Camera).HasMaxLength(100);
            photo.Property(p => p.Revision).IsConcurrencyToken();
            photo.HasOne<Album>().WithMany().HasForeignKey(p => p.AlbumId);
            photo.HasOne<AlbumUnit>().WithMany().HasForeignKey(p => p.UnitId);
            photo.HasIndex(p => new { p.AlbumId, p.Sha256 }).IsUnique();
            photo.Ignore(p => p.Pixels);
        });

        modelBuilder.Entity<Edit>(edit =>
        {
            edit.Property(e => e.Sequence).UseIdentityAlwaysColumn();
            edit.Property(e => e.Summary).HasMaxLength(400);
            edit.HasOne<Album>().WithMany().HasForeignKey(e => e.AlbumId);
            edit.HasIndex(e => e.UnitIds).HasMethod("gin");
            edit.HasIndex(e => e.Sequence).IsUnique();
            edit.HasMany(e => e.Changes).WithOne().HasForeignKey(c => c.EditId);
        });

        modelBuilder.Entity<EditChange>(change =>
        {
            change.Property(c => c.Before).HasColumnType("jsonb");
            change.Property(c => c.After).HasColumnType("jsonb");
            change.HasIndex(c => c.SubjectId);
        });

        modelBuilder.Entity<PrintJob>(job =>
        {
            job.Property(j => j.RequestKey).HasMaxLength(100);
            job.Property(j => j.PaperKey).HasMaxLength(32);
            job.Property(j => j.Problem).HasMaxLength(1000);
            job.HasOne<Album>().WithMany().HasForeignKey(j => j.AlbumId);
            job.HasIndex(j => new { j.KeeperId, j.RequestKey }).IsUnique();
        });
    }

    private sealed class LengthInEmu() : ValueConverter<Length, long>(length => length.Emu, emu => new Length(emu));
}

/// <summary>Lets the migration tool make a context without a running server.</summary>
public sealed class DesignTimeContextFactory : IDesignTimeDbContextFactory<ZestyContext>
{
    public ZestyContext CreateDbContext(string[] args)
    {
        var builder = new DbContextOptionsBuilder<ZestyContext>();
        ZestyContext.Configure(builder, "Host=127.0.0.1;Database=design");
        return new ZestyContext(builder.Options);
    }
}
