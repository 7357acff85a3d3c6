using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using ZestyPocket.Core.Dates;
using ZestyPocket.Core.Measures;
using ZestyPocket.Core.Photos;
using ZestyPocket.Storage.Accounts;
using ZestyPocket.Storage.Albums;
using ZestyPocket.Storage.Counting;
using ZestyPocket.Storage.Editing;
using ZestyPocket.Storage.Jobs;
using ZestyPocket.Storage.Keeping;
using ZestyPocket.Storage.Photos;
using ZestyPocket.Storage.Placing;
using ZestyPocket.Storage.Printing;
using ZestyPocket.Storage.Sharing;
using ZestyPocket.Storage.Words;

namespace ZestyPocket.Storage;

/// <summary>The database. Everything but the photo originals is in it.</summary>
public sealed class ZestyContext(DbContextOptions<ZestyContext> options)
    : IdentityUserContext<Account, Guid>(options),
        IDataProtectionKeyContext
{
    public DbSet<AccountLink> AccountLinks => Set<AccountLink>();

    public DbSet<RecoveryCode> RecoveryCodes => Set<RecoveryCode>();

    public DbSet<SignInAttempt> SignIns => Set<SignInAttempt>();

    /// <summary>What sessions are signed with, shared by all servers.</summary>
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    public DbSet<Keeper> Keepers => Set<Keeper>();

    public DbSet<Album> Albums => Set<Album>();

    public DbSet<AlbumProtector> Protectors => Set<AlbumProtector>();

    public DbSet<AlbumUnit> Units => Set<AlbumUnit>();

    public DbSet<AlbumLeaf> Leaves => Set<AlbumLeaf>();

    public DbSet<Photo> Photos => Set<Photo>();

    public DbSet<ImportBatch> Imports => Set<ImportBatch>();

    public DbSet<ImportFile> ImportFiles => Set<ImportFile>();

    public DbSet<Video> Videos => Set<Video>();

    public DbSet<Story> Stories => Set<Story>();

    public DbSet<Edit> Edits => Set<Edit>();

    public DbSet<PrintJob> PrintJobs => Set<PrintJob>();

    public DbSet<StretchPlacing> StretchPlacings => Set<StretchPlacing>();

    public DbSet<PageSearch> PageSearches => Set<PageSearch>();

    public DbSet<Printer> Printers => Set<Printer>();

    public DbSet<PaperOnHand> PapersOnHand => Set<PaperOnHand>();

    public DbSet<SheetLeftover> SheetLeftovers => Set<SheetLeftover>();

    public DbSet<LabOrder> LabOrders => Set<LabOrder>();

    public DbSet<Book> Books => Set<Book>();

    public DbSet<Backup> Backups => Set<Backup>();

    public DbSet<Restore> Restores => Set<Restore>();

    public DbSet<StashedItem> StashItems => Set<StashedItem>();

    public DbSet<StashStep> StashSteps => Set<StashStep>();

    public DbSet<PieceTick> PieceTicks => Set<PieceTick>();

    public DbSet<PrintedPiece> PrintedPieces => Set<PrintedPiece>();

    public DbSet<KeeperDesign> Designs => Set<KeeperDesign>();

    public DbSet<AlbumShare> Shares => Set<AlbumShare>();

    public DbSet<Invitation> Invitations => Set<Invitation>();

    public DbSet<ShareEntry> ShareEntries => Set<ShareEntry>();

    public DbSet<ContributorLink> ContributorLinks => Set<ContributorLink>();

    public DbSet<Presence> Presences => Set<Presence>();

    public DbSet<Comment> Comments => Set<Comment>();

    /// <summary>How every part of the program sets the provider up.</summary>
    public static void Configure(DbContextOptionsBuilder builder, string connectionString) =>
        builder.UseNpgsql(connectionString, npgsql => npgsql.UseNodaTime());

    /// <summary>The one with passkeys.</summary>
    protected override Version SchemaVersion => IdentitySchemaVersions.Version3;

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Length>().HaveConversion<LengthInEmu>();
        configurationBuilder.Properties<ContentHash>().HaveConversion<HashAsText>().HaveMaxLength(ContentHash.Digits);
        configurationBuilder.Properties<Enum>().HaveConversion<string>().HaveMaxLength(32);
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        ConfigureAccounts(builder);
        ConfigureSharing(builder);
        builder.Entity<Keeper>(keeper =>
        {
            keeper.Property(k => k.Name).HasMaxLength(200);
            keeper.HasData(new Keeper { Id = Keeper.LocalId, Name = "Local keeper" });
        });

        builder.Entity<Album>(album =>
        {
            album.Property(a => a.Name).HasMaxLength(200);
            album.Property(a => a.Revision).IsConcurrencyToken();
            album.Property(a => a.Calendar).HasColumnType("jsonb");
            album.Property(a => a.Words).HasColumnType("jsonb");
            album.Property(a => a.Formulas).HasColumnType("jsonb");
            album.Property(a => a.Keeping).HasColumnType("jsonb").HasDefaultValue("{}");
            album.Property(a => a.Trip).HasColumnType("jsonb").HasDefaultValue("{}");
            album.HasOne<Keeper>().WithMany().HasForeignKey(a => a.KeeperId);
            album.HasMany(a => a.Protectors).WithOne().HasForeignKey(p => p.AlbumId);
            album.HasMany(a => a.Units).WithOne().HasForeignKey(u => u.AlbumId);
            album.HasMany(a => a.Leaves).WithOne().HasForeignKey(l => l.AlbumId);
        });

        builder.Entity<AlbumProtector>(protector =>
        {
            protector.Property(p => p.DesignKey).HasMaxLength(100);
            protector.Property(p => p.Revision).IsConcurrencyToken();
            protector.Property(p => p.ClearSizes).HasColumnType("jsonb");
            protector.Property(p => p.Form).HasColumnType("jsonb");
            protector.Property(p => p.OnHand).HasColumnName("Stock");
        });

        builder.Entity<AlbumUnit>(unit =>
        {
            unit.Property(u => u.Content).HasColumnType("jsonb");
            unit.Property(u => u.Revision).IsConcurrencyToken();
            unit.Property(u => u.Name).HasMaxLength(UnitDates.LongestName);
            unit.HasIndex(u => new { u.AlbumId, u.Ordinal });
            unit.HasQueryFilter(u => !u.Gone);
        });

        builder.Entity<AlbumLeaf>(leaf =>
        {
            leaf.Property(l => l.Revision).IsConcurrencyToken();
            leaf.Property(l => l.Alterations).HasColumnName("Form").HasColumnType("jsonb");
            leaf.HasOne<AlbumProtector>().WithMany().HasForeignKey(l => l.ProtectorId);
            leaf.HasOne<AlbumUnit>().WithMany().HasForeignKey(l => l.FrontUnitId);
            leaf.HasOne<AlbumUnit>().WithMany().HasForeignKey(l => l.BackUnitId);
            leaf.HasIndex(l => new { l.AlbumId, l.Ordinal });
            leaf.HasQueryFilter(l => !l.Gone);
        });

        builder.Entity<Photo>(photo =>
        {
            photo.Property(p => p.Sha256).HasMaxLength(64).IsFixedLength();
            photo.Property(p => p.FileName).HasMaxLength(300);
            photo.Property(p => p.Format).HasMaxLength(16);
            photo.Property(p => p.Camera).HasMaxLength(100);
            photo.Property(p => p.Revision).IsConcurrencyToken();
            photo.HasOne<Album>().WithMany().HasForeignKey(p => p.AlbumId);
            photo.HasOne<AlbumUnit>().WithMany().HasForeignKey(p => p.UnitId);
            photo.HasIndex(p => new { p.AlbumId, p.Sha256 }).IsUnique();
            // The order in which an album's pictures are listed, page by page.
            photo.HasIndex(p => new
            {
                p.AlbumId,
                p.SortAt,
                p.Id,
            });
            // Small enough to count an album of 50,000 photos without reading one of them.
            photo
                .HasIndex(p => new
                {
                    p.AlbumId,
                    p.UnitId,
                    p.Day,
                })
                .HasFilter("\"Verdict\" <> 'Leave'");
            photo.Property(p => p.Palette).HasColumnType("jsonb");
            photo.Property(p => p.KeepBoxes).HasColumnType("jsonb");
            photo.Property(p => p.CoverBoxes).HasColumnType("jsonb");
            photo.Property(p => p.People).HasDefaultValueSql("'{}'::text[]");
            photo.Ignore(p => p.Pixels);
            photo.Ignore(p => p.RecordedTime);
        });

        builder.Entity<ImportBatch>(batch =>
        {
            batch.HasOne<Album>().WithMany().HasForeignKey(b => b.AlbumId);
            batch.HasMany(b => b.Files).WithOne().HasForeignKey(f => f.BatchId);
            batch.HasIndex(b => new { b.AlbumId, b.MadeAt });
        });

        builder.Entity<Video>(video =>
        {
            video.Property(v => v.FileName).HasMaxLength(300);
            video.Property(v => v.Sha256).HasMaxLength(64).IsFixedLength();
            video.Property(v => v.Camera).HasMaxLength(120);
            video.HasIndex(v => new { v.AlbumId, v.Sha256 }).IsUnique();
            video.HasOne<Album>().WithMany().HasForeignKey(v => v.AlbumId).OnDelete(DeleteBehavior.Cascade);
        });

        builder.Entity<ImportFile>(file =>
        {
            file.Property(f => f.Key).HasMaxLength(120);
            // Two servers on one file: the first to finish has it.
            file.Property(f => f.Status).IsConcurrencyToken();
            file.Property(f => f.FileName).HasMaxLength(300);
            file.Property(f => f.Sha256).HasMaxLength(64).IsFixedLength();
            file.Property(f => f.Detail).HasMaxLength(1000);
            file.Property(f => f.Sequence).UseIdentityAlwaysColumn();
            file.HasIndex(f => new { f.BatchId, f.Key }).IsUnique();
            file.HasIndex(f => new
            {
                f.BatchId,
                f.Status,
                f.Sequence,
            });
        });

        builder.Entity<Story>(story =>
        {
            story.Property(s => s.Title).HasMaxLength(200);
            story.Property(s => s.Theme).HasMaxLength(120);
            story.Property(s => s.Author).HasMaxLength(80);
            story.Property(s => s.Source).HasMaxLength(500);
            story.Property(s => s.Revision).IsConcurrencyToken();
            story.HasOne<Album>().WithMany().HasForeignKey(s => s.AlbumId);
            // The same post is taken once, also by two windows at the same moment.
            story.HasIndex(s => new { s.AlbumId, s.Source }).IsUnique();
            story.HasIndex(s => s.Days).HasMethod("gin");
            story.HasQueryFilter(s => !s.Gone);
        });

        builder.Entity<Edit>(edit =>
        {
            edit.Property(e => e.Sequence).UseIdentityAlwaysColumn();
            edit.Property(e => e.Summary).HasMaxLength(400);
            edit.HasOne<Album>().WithMany().HasForeignKey(e => e.AlbumId);
            edit.HasIndex(e => e.UnitIds).HasMethod("gin");
            edit.HasIndex(e => e.Sequence).IsUnique();
            edit.HasMany(e => e.Changes).WithOne().HasForeignKey(c => c.EditId);
        });

        builder.Entity<EditChange>(change =>
        {
            change.Property(c => c.Before).HasColumnType("jsonb");
            change.Property(c => c.After).HasColumnType("jsonb");
            change.HasIndex(c => c.SubjectId);
        });

        builder.Entity<PrintJob>(job =>
        {
            job.Property(j => j.RequestKey).HasMaxLength(AskedJob.LongestKey);
            job.Property(j => j.PaperKey).HasMaxLength(32);
            job.ComplexProperty(
                j => j.Options,
                o =>
                {
                    o.Property(x => x.UseLeftovers).HasDefaultValue(false);
                    o.Property(x => x.Copies).HasDefaultValue(1);
                }
            );
            job.Property(j => j.Problem).HasMaxLength(1000);
            job.HasOne<Album>().WithMany().HasForeignKey(j => j.AlbumId);
            job.HasIndex(j => new { j.KeeperId, j.RequestKey }).IsUnique();
        });

        builder.Entity<PageSearch>(search =>
        {
            search.Property(s => s.RequestKey).HasMaxLength(AskedJob.LongestKey);
            search.Property(s => s.Problem).HasMaxLength(1000);
            search.Property(s => s.Answer).HasColumnType("jsonb");
            search.HasOne<Album>().WithMany().HasForeignKey(s => s.AlbumId);
            search.HasIndex(s => new { s.KeeperId, s.RequestKey }).IsUnique();
        });

        builder.Entity<StretchPlacing>(placing =>
        {
            placing.Property(s => s.RequestKey).HasMaxLength(AskedJob.LongestKey);
            placing.Property(s => s.Problem).HasMaxLength(1000);
            placing.Property(s => s.Done).HasMaxLength(1000);
            placing.Property(s => s.Rules).HasColumnType("jsonb");
            placing.HasOne<Album>().WithMany().HasForeignKey(s => s.AlbumId);
            placing.HasIndex(s => new { s.KeeperId, s.RequestKey }).IsUnique();
        });

        builder.Entity<PrintedPiece>(piece =>
        {
            piece.HasKey(p => p.PieceId);
            piece.Property(p => p.Number).HasMaxLength(80);
            piece.Property(p => p.Recipe).HasMaxLength(200);
            piece.HasOne<Album>().WithMany().HasForeignKey(p => p.AlbumId);
            piece.HasIndex(p => new { p.AlbumId, p.UnitId });
        });

        builder.Entity<Printer>(printer =>
        {
            printer.Property(p => p.Name).HasMaxLength(80);
            printer.HasOne<Keeper>().WithMany().HasForeignKey(p => p.KeeperId);
        });

        builder.Entity<PaperOnHand>(paper =>
        {
            paper.Property(p => p.PaperKey).HasMaxLength(32);
            paper.Property(p => p.Price).HasPrecision(12, 4);
            paper.HasOne<Keeper>().WithMany().HasForeignKey(p => p.KeeperId);
            paper
                .HasIndex(p => new
                {
                    p.KeeperId,
                    p.Stock,
                    p.PaperKey,
                })
                .IsUnique();
        });

        builder.Entity<SheetLeftover>(left =>
        {
            left.Property(l => l.PaperKey).HasMaxLength(32);
            left.Ignore(l => l.Free);
            left.HasOne<Keeper>().WithMany().HasForeignKey(l => l.KeeperId);
            left.HasIndex(l => new { l.KeeperId, l.State });
            left.HasIndex(l => l.JobId);
        });

        builder.Entity<Book>(book =>
        {
            book.Property(b => b.RequestKey).HasMaxLength(AskedJob.LongestKey);
            book.HasOne<Album>().WithMany().HasForeignKey(b => b.AlbumId);
            book.HasIndex(b => new { b.KeeperId, b.RequestKey }).IsUnique();
        });

        builder.Entity<Backup>(backup =>
        {
            backup.Property(b => b.FileName).HasMaxLength(200);
            backup.Property(b => b.RequestKey).HasMaxLength(AskedJob.LongestKey);
            backup.HasIndex(b => new { b.KeeperId, b.RequestKey }).IsUnique();
        });

        builder.Entity<Restore>(restore =>
        {
            restore.Property(r => r.FileName).HasMaxLength(200);
            restore.Property(r => r.RequestKey).HasMaxLength(AskedJob.LongestKey);
            restore.HasIndex(r => new { r.KeeperId, r.RequestKey }).IsUnique();
        });

        builder.Entity<LabOrder>(order =>
        {
            order.Property(o => o.RequestKey).HasMaxLength(AskedJob.LongestKey);
            order.Property(o => o.Problem).HasMaxLength(1000);
            order.Property(o => o.Price).HasPrecision(12, 2);
            order.Property(o => o.Currency).HasMaxLength(3);
            order.Property(o => o.Prints).HasColumnType("jsonb");
            order.HasOne<Album>().WithMany().HasForeignKey(o => o.AlbumId);
            order.HasIndex(o => new { o.KeeperId, o.RequestKey }).IsUnique();
        });

        builder.Entity<StashedItem>(item =>
        {
            item.Property(i => i.Item).HasColumnType("jsonb");
            item.Property(i => i.Revision).IsConcurrencyToken();
            item.HasOne<Keeper>().WithMany().HasForeignKey(i => i.KeeperId);
            item.HasIndex(i => new { i.KeeperId, i.MadeAt });
        });

        builder.Entity<StashStep>(step =>
        {
            step.Property(s => s.Summary).HasMaxLength(400);
            step.Property(s => s.Changes).HasColumnType("jsonb");
            step.Property(s => s.Sequence).UseIdentityAlwaysColumn();
            step.HasOne<Keeper>().WithMany().HasForeignKey(s => s.KeeperId);
            step.HasIndex(s => new { s.KeeperId, s.Sequence });
        });

        builder.Entity<PieceTick>(tick =>
        {
            tick.HasKey(t => t.PieceId);
            tick.Property(t => t.TuckedRecipe).HasMaxLength(200);
            tick.HasOne<Album>().WithMany().HasForeignKey(t => t.AlbumId);
            tick.HasIndex(t => new { t.AlbumId, t.UnitId });
        });

        builder.Entity<KeeperDesign>(design =>
        {
            design.Property(d => d.Name).HasMaxLength(120);
            design.Property(d => d.Notation).HasMaxLength(2_000);
            design.Ignore(d => d.Key);
            design.HasOne<Keeper>().WithMany().HasForeignKey(d => d.KeeperId);
            design.HasIndex(d => new { d.KeeperId, d.MadeAt });
        });
    }

    private static void ConfigureAccounts(ModelBuilder builder)
    {
        builder.Entity<Account>(account =>
        {
            account.ToTable("Accounts");
            account.HasOne<Keeper>().WithOne().HasForeignKey<Account>(a => a.Id);
        });
        builder.Entity<IdentityUserClaim<Guid>>().ToTable("AccountClaims");
        builder.Entity<IdentityUserLogin<Guid>>().ToTable("AccountLogins");
        builder.Entity<IdentityUserToken<Guid>>().ToTable("AccountTokens");
        builder.Entity<IdentityUserPasskey<Guid>>(passkey =>
        {
            // What Identity itself says of it leaves its data without an owner in this context.
            passkey.ToTable("AccountPasskeys");
            passkey.HasKey(p => p.CredentialId);
            passkey.Property(p => p.CredentialId).HasMaxLength(1_024);
            passkey.OwnsOne(p => p.Data, data => data.ToJson());
            passkey.HasOne<Account>().WithMany().HasForeignKey(p => p.UserId);
        });
        builder.Entity<AccountLink>(link =>
        {
            link.Property(l => l.Hash).HasMaxLength(64).IsFixedLength();
            link.HasIndex(l => l.Hash).IsUnique();
        });
        builder.Entity<RecoveryCode>(code =>
        {
            code.Property(c => c.Hash).HasMaxLength(64).IsFixedLength();
            code.HasOne<Account>().WithMany().HasForeignKey(c => c.AccountId);
            code.HasIndex(c => new { c.AccountId, c.Hash }).IsUnique();
        });
        builder.Entity<SignInAttempt>(attempt =>
        {
            attempt.Property(a => a.What).HasMaxLength(80);
            attempt.Property(a => a.From).HasMaxLength(80);
            attempt.HasIndex(a => new { a.AccountId, a.At });
        });
    }

    private static void ConfigureSharing(ModelBuilder builder)
    {
        builder.Entity<AlbumShare>(share =>
        {
            share.HasKey(s => new { s.AlbumId, s.KeeperId });
            share.HasOne<Album>().WithMany().HasForeignKey(s => s.AlbumId);
            share.HasOne<Keeper>().WithMany().HasForeignKey(s => s.KeeperId);
            share.HasIndex(s => s.KeeperId);
        });
        builder.Entity<Invitation>(invitation =>
        {
            invitation.Property(i => i.Hash).HasMaxLength(64).IsFixedLength();
            invitation.Property(i => i.For).HasMaxLength(Invitation.LongestName);
            invitation.HasOne<Album>().WithMany().HasForeignKey(i => i.AlbumId);
            invitation.HasIndex(i => i.Hash).IsUnique();
        });
        builder.Entity<ShareEntry>(entry =>
        {
            entry.Property(e => e.What).HasMaxLength(ShareEntry.LongestWhat);
            entry.HasOne<Album>().WithMany().HasForeignKey(e => e.AlbumId);
            entry.HasIndex(e => new { e.AlbumId, e.At });
        });
        builder.Entity<ContributorLink>(link =>
        {
            link.Property(l => l.Hash).HasMaxLength(64).IsFixedLength();
            link.Property(l => l.Person).HasMaxLength(ContributorLink.LongestPerson);
            link.Property(l => l.Prompt).HasMaxLength(ContributorLink.LongestPrompt);
            link.HasOne<Album>().WithMany().HasForeignKey(l => l.AlbumId);
            link.HasIndex(l => l.Hash).IsUnique();
        });
        builder.Entity<Presence>(presence =>
        {
            presence.HasKey(p => new { p.AlbumId, p.WindowId });
            presence.HasOne<Album>().WithMany().HasForeignKey(p => p.AlbumId);
        });
        builder.Entity<Comment>(comment =>
        {
            comment.Property(c => c.Words).HasMaxLength(Comment.LongestWords);
            comment.HasOne<Album>().WithMany().HasForeignKey(c => c.AlbumId);
            comment.HasIndex(c => new { c.AlbumId, c.UnitId });
        });
    }

    private sealed class HashAsText()
        : ValueConverter<ContentHash, string>(h => h.ToString(), t => ContentHash.Parse(t));

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
