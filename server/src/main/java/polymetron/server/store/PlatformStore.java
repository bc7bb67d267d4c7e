package polymetron.server.store;

import static polymetron.server.store.generated.Tables.PLATFORM;
import static polymetron.server.store.generated.Tables.REVISION;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.json.Documents;
import polymetron.library.Library;
import polymetron.merge.Merge;
import polymetron.merge.MergeRefused;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.server.problem.NotThere;
import polymetron.server.problem.StaleEdit;
import tools.jackson.databind.json.JsonMapper;

/**
 * Platforms and all their revisions. A change names the revision that it was made on; when there is a newer one it is
 * carried over to that, or refused. It is stored before it is acknowledged, and told to every server in the same transaction.
 */
@Repository
public class PlatformStore {
    /** Channel on which new revisions are told, as {@code id:number}. */
    public static final String CHANNEL = "polymetron_revision";

    /** In place of a number: the platform is removed. */
    public static final String GONE = "gone";

    private static final int MOST_MEANWHILE = 5;
    private static final JsonMapper MAPPER = new JsonMapper();

    private final DSLContext database;
    private final Libraries libraries;
    private final CurrentAuthor author;

    public PlatformStore(DSLContext database, Libraries libraries, CurrentAuthor author) {
        this.database = database;
        this.libraries = libraries;
        this.author = author;
    }

    /** All platforms, the one changed last first. */
    @Transactional(readOnly = true)
    public List<PlatformRow> list() {
        return database.select(
                        PLATFORM.ID,
                        PLATFORM.NAME,
                        PLATFORM.REVISION,
                        REVISION.MADE_AT,
                        PLATFORM.CREATED_AT,
                        REVISION.AUTHOR_NAME,
                        REVISION.SUMMARY)
                .from(PLATFORM)
                .join(REVISION)
                .on(REVISION.PLATFORM_ID.eq(PLATFORM.ID).and(REVISION.NUMBER.eq(PLATFORM.REVISION)))
                .where(PLATFORM.REMOVED_AT.isNull())
                .orderBy(REVISION.MADE_AT.desc(), PLATFORM.NAME)
                .fetch(
                        row ->
                                new PlatformRow(
                                        row.value1(),
                                        row.value2(),
                                        row.value3(),
                                        row.value4(),
                                        row.value5(),
                                        row.value6(),
                                        summary(row.value7())));
    }

    private static Summary summary(JSONB kept) {
        return kept == null ? null : MAPPER.readValue(kept.data(), Summary.class);
    }

    /** Keeps what the list says about a revision. */
    @Transactional
    public void keep(UUID id, long number, Summary summary) {
        database.update(REVISION)
                .set(REVISION.SUMMARY, JSONB.valueOf(MAPPER.writeValueAsString(summary)))
                .where(REVISION.PLATFORM_ID.eq(id), REVISION.NUMBER.eq(number))
                .execute();
    }

    @Transactional
    public UUID create(Platform platform, String title) {
        UUID id = UUID.randomUUID();
        database.insertInto(PLATFORM, PLATFORM.ID, PLATFORM.NAME, PLATFORM.REVISION)
                .values(id, platform.name(), 1L)
                .execute();
        insertRevision(id, 1, platform, title, null, null, null, null);
        return id;
    }

    /** The newest revisions of those platforms that are there. */
    @Transactional(readOnly = true)
    public Map<UUID, Long> newest(Collection<UUID> ids) {
        return database.select(PLATFORM.ID, PLATFORM.REVISION)
                .from(PLATFORM)
                .where(PLATFORM.ID.in(ids), PLATFORM.REMOVED_AT.isNull())
                .fetchMap(PLATFORM.ID, PLATFORM.REVISION);
    }

    /** Removes a platform; it can be brought back for {@link Removed#KEPT_DAYS} days. */
    @Transactional
    public void delete(UUID id) {
        int removed =
                database.update(PLATFORM)
                        .set(PLATFORM.REMOVED_AT, DSL.currentOffsetDateTime())
                        .set(PLATFORM.REMOVED_BY, author.get().name())
                        .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNull())
                        .execute();
        if (removed == 0) {
            throw notThere(id);
        }
        database.execute("select pg_notify({0}, {1})", CHANNEL, id + ":" + GONE);
    }

    /**
     * @throws NotThere when there is no such platform
     */
    @Transactional(readOnly = true)
    public StoredPlatform read(UUID id) {
        Record head =
                database.select(
                                REVISION.NUMBER,
                                REVISION.DOCUMENT,
                                REVISION.MADE_AT,
                                REVISION.UNDO_TO,
                                REVISION.REDO_TO)
                        .from(PLATFORM)
                        .join(REVISION)
                        .on(
                                REVISION.PLATFORM_ID
                                        .eq(PLATFORM.ID)
                                        .and(REVISION.NUMBER.eq(PLATFORM.REVISION)))
                        .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNull())
                        .fetchOptional()
                        .orElseThrow(() -> notThere(id));
        Long undoTo = head.get(REVISION.UNDO_TO);
        Long redoTo = head.get(REVISION.REDO_TO);
        return new StoredPlatform(
                id,
                head.get(REVISION.NUMBER),
                PlatformDocument.readKept("stored platform", head.get(REVISION.DOCUMENT)),
                head.get(REVISION.MADE_AT),
                undoTo == null ? null : made(id, head.get(REVISION.NUMBER)).get(REVISION.TITLE),
                undoTo == null ? null : author(made(id, head.get(REVISION.NUMBER))),
                redoTo == null ? null : made(id, redoTo).get(REVISION.TITLE));
    }

    /**
     * @param at number of the revision that is looked at; null for the newest
     * @throws NotThere when there is no such platform or revision
     */
    @Transactional(readOnly = true)
    public StoredPlatform read(UUID id, Long at) {
        if (at == null) {
            return read(id);
        }
        Record row = revisionRow(id, at);
        return new StoredPlatform(
                id,
                at,
                PlatformDocument.readKept("revision " + at, row.get(REVISION.DOCUMENT)),
                row.get(REVISION.MADE_AT),
                null,
                null,
                null);
    }

    /** The revision in which the content of a revision was made first. */
    private Record made(UUID id, long number) {
        Record row = revisionRow(id, number);
        Long repeats = row.get(REVISION.REPEATS);
        return repeats == null ? row : revisionRow(id, repeats);
    }

    private static Author author(Record row) {
        return new Author(row.get(REVISION.AUTHOR_BROWSER), row.get(REVISION.AUTHOR_NAME));
    }

    private Record revisionRow(UUID id, long number) {
        return database.selectFrom(REVISION)
                .where(REVISION.PLATFORM_ID.eq(id), REVISION.NUMBER.eq(number), isThere(id))
                .fetchOptional()
                .orElseThrow(() -> notThere(id));
    }

    /**
     * Applies an edit to the newest revision and stores the outcome as the next. An edit that was made on an older
     * revision is carried over when it can be, see {@link Merge}.
     *
     * @param base revision that the edit's author has seen
     * @param own revisions after it that its author has made, without seeing what others have
     * @param sentAs number that its author has given the edit, the same when they send it again; null for none
     * @return number of the new revision, or of the newest when the edit changes nothing
     * @throws StaleEdit when the edit was made on an older revision and cannot be carried over
     * @throws RejectedEdit when the edit makes no sense
     */
    @Transactional
    public long apply(UUID id, long base, List<Long> own, Edit edit, UUID sentAs) {
        long head = lock(id);
        Optional<Long> made = madeOf(id, sentAs);
        if (made.isPresent()) {
            return made.get();
        }
        if (base > head || base < 1) {
            throw stale(id, head, base, "there is no revision " + base);
        }
        Library library = libraries.current();
        Platform newest = at(id, head);
        Platform after;
        if (base == head) {
            after = new Editor(library).apply(newest, edit);
        } else {
            try {
                after = new Merge(library).apply(seen(id, base, own, head), newest, edit);
            } catch (MergeRefused refused) {
                throw stale(id, head, base, refused.getMessage());
            }
        }
        if (after.equals(newest)) {
            // Such as the same value written again: nothing to keep, and nothing to undo.
            return head;
        }
        insertRevision(id, head + 1, after, edit.describe(), edit, null, head, null);
        if (sentAs != null) {
            database.update(REVISION)
                    .set(REVISION.SENT_AS, sentAs)
                    .where(REVISION.PLATFORM_ID.eq(id), REVISION.NUMBER.eq(head + 1))
                    .execute();
        }
        moveHead(id, head + 1, after.name());
        return head + 1;
    }

    /** The revision that an edit made when it was sent the first time. */
    private Optional<Long> madeOf(UUID id, UUID sentAs) {
        return sentAs == null
                ? Optional.empty()
                : database.select(REVISION.NUMBER)
                        .from(REVISION)
                        .where(REVISION.PLATFORM_ID.eq(id), REVISION.SENT_AS.eq(sentAs))
                        .fetchOptional(REVISION.NUMBER);
    }

    /** What the author of an edit had before them: the revision they have seen, and on it their own later changes. */
    private Platform seen(UUID id, long base, List<Long> own, long head) {
        Platform seen = at(id, base);
        Editor editor = new Editor(libraries.current());
        for (long number : own.stream().sorted().distinct().toList()) {
            if (number <= base || number > head) {
                continue;
            }
            Record row = revisionRow(id, number);
            JSONB edit = row.get(REVISION.EDIT);
            try {
                seen =
                        edit == null
                                ? PlatformDocument.readKept(
                                        "revision " + number, row.get(REVISION.DOCUMENT))
                                : editor.apply(
                                        seen,
                                        Documents.read(
                                                "edit of revision " + number,
                                                edit.data(),
                                                Edit.class));
            } catch (RejectedEdit notOn) {
                throw stale(id, head, base, "what it was made on is no longer there");
            }
        }
        return seen;
    }

    /** Puts the content from before the last change on top, as a new revision. */
    @Transactional
    public long undo(UUID id, long base) {
        return goTo(id, base, REVISION.UNDO_TO, "undo");
    }

    /** Puts on top again what undo took back. */
    @Transactional
    public long redo(UUID id, long base) {
        return goTo(id, base, REVISION.REDO_TO, "redo");
    }

    /** Revisions, the newest first. */
    @Transactional(readOnly = true)
    public List<RevisionRow> revisions(UUID id, int most) {
        return database.select(
                        REVISION.NUMBER,
                        REVISION.TITLE,
                        REVISION.MADE_AT,
                        REVISION.AUTHOR_BROWSER,
                        REVISION.AUTHOR_NAME,
                        REVISION.NAME,
                        REVISION.REPEATS)
                .from(REVISION)
                .where(REVISION.PLATFORM_ID.eq(id), isThere(id))
                .orderBy(REVISION.NUMBER.desc())
                .limit(most)
                .fetch(
                        row ->
                                new RevisionRow(
                                        row.value1(),
                                        row.value2(),
                                        row.value3(),
                                        author(row),
                                        row.value6(),
                                        row.value7()));
    }

    /**
     * Calls a revision something.
     *
     * @param name null takes the name away
     * @throws NotThere when there is no such revision
     */
    @Transactional
    public void name(UUID id, long number, String name) {
        int named =
                database.update(REVISION)
                        .set(REVISION.NAME, name)
                        .where(REVISION.PLATFORM_ID.eq(id), REVISION.NUMBER.eq(number), isThere(id))
                        .execute();
        if (named == 0) {
            throw new NotThere("there is no revision %s".formatted(number));
        }
    }

    /**
     * The platform as it was at a revision.
     *
     * @throws NotThere when there is no such revision
     */
    @Transactional(readOnly = true)
    public Platform at(UUID id, long number) {
        return PlatformDocument.readKept(
                "revision " + number, revisionRow(id, number).get(REVISION.DOCUMENT));
    }

    /** Puts the content of an earlier revision on top; undo takes that back like any edit. */
    @Transactional
    public long restore(UUID id, long base, long number) {
        lockHead(id, base);
        Platform platform = at(id, number);
        insertRevision(
                id,
                base + 1,
                platform,
                "go back to revision %s".formatted(number),
                null,
                null,
                base,
                null);
        moveHead(id, base + 1, platform.name());
        return base + 1;
    }

    private long goTo(UUID id, long base, org.jooq.Field<Long> direction, String word) {
        Record old = lockHead(id, base);
        Long to = old.get(direction);
        if (to == null) {
            throw new RejectedEdit("revision", "there is nothing to %s".formatted(word));
        }
        Record target = revisionRow(id, to);
        Platform platform =
                PlatformDocument.readKept("stored platform", target.get(REVISION.DOCUMENT));
        long number = base + 1;
        boolean back = word.equals("undo");
        Long repeats = target.get(REVISION.REPEATS);
        // The neighbours of the content that is put back stay its neighbours.
        insertRevision(
                id,
                number,
                platform,
                word + " " + made(id, back ? base : to).get(REVISION.TITLE),
                null,
                repeats == null ? to : repeats,
                target.get(REVISION.UNDO_TO),
                back ? Long.valueOf(base) : target.get(REVISION.REDO_TO));
        moveHead(id, number, platform.name());
        return number;
    }

    private Record lockHead(UUID id, long base) {
        long head = lock(id);
        if (head != base) {
            throw stale(id, head, base, null);
        }
        return revisionRow(id, base);
    }

    private long lock(UUID id) {
        return database.select(PLATFORM.REVISION)
                .from(PLATFORM)
                .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNull())
                .forUpdate()
                .fetchOptional(PLATFORM.REVISION)
                .orElseThrow(() -> notThere(id));
    }

    private StaleEdit stale(UUID id, long head, long base, String reason) {
        List<String> meanwhile =
                database.select(REVISION.TITLE)
                        .from(REVISION)
                        .where(REVISION.PLATFORM_ID.eq(id), REVISION.NUMBER.gt(base))
                        .orderBy(REVISION.NUMBER.desc())
                        .limit(MOST_MEANWHILE)
                        .fetch(REVISION.TITLE)
                        .reversed();
        return new StaleEdit(head, meanwhile, reason);
    }

    /** A platform that is removed has neither revisions nor programs for anybody, though they are kept. */
    static Condition isThere(UUID id) {
        return DSL.exists(
                DSL.selectOne()
                        .from(PLATFORM)
                        .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNull()));
    }

    private void insertRevision(
            UUID id,
            long number,
            Platform platform,
            String title,
            Edit edit,
            Long repeats,
            Long undoTo,
            Long redoTo) {
        Author by = author.get();
        database.insertInto(REVISION)
                .set(REVISION.AUTHOR_BROWSER, by.browser())
                .set(REVISION.AUTHOR_NAME, by.name())
                .set(REVISION.PLATFORM_ID, id)
                .set(REVISION.NUMBER, number)
                .set(REVISION.DOCUMENT, PlatformDocument.write(platform))
                .set(REVISION.TITLE, title)
                .set(REVISION.EDIT, edit == null ? null : JSONB.valueOf(Documents.write(edit)))
                .set(REVISION.REPEATS, repeats)
                .set(REVISION.UNDO_TO, undoTo)
                .set(REVISION.REDO_TO, redoTo)
                .execute();
        database.execute("select pg_notify({0}, {1})", CHANNEL, id + ":" + number);
    }

    private void moveHead(UUID id, long number, String name) {
        database.update(PLATFORM)
                .set(PLATFORM.REVISION, number)
                .set(PLATFORM.NAME, name)
                .where(PLATFORM.ID.eq(id))
                .execute();
    }

    /** Says of a platform that is removed by whom, as long as it is kept. */
    private NotThere notThere(UUID id) {
        return database.select(PLATFORM.NAME, PLATFORM.REMOVED_BY)
                .from(PLATFORM)
                .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNotNull())
                .fetchOptional()
                .map(
                        row ->
                                new NotThere(
                                        "%s was removed%s; it can be brought back for %s days"
                                                .formatted(
                                                        row.value1(),
                                                        row.value2() == null
                                                                ? ""
                                                                : " by " + row.value2(),
                                                        Removed.KEPT_DAYS)))
                .orElseGet(
                        () ->
                                new NotThere(
                                        "there is no such platform; the link may be of another"
                                                + " installation, or the platform was removed long"
                                                + " ago"));
    }
}
