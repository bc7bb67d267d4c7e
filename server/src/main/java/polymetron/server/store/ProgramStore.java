package polymetron.server.store;

import static polymetron.server.store.generated.Tables.PROGRAM;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.UUID;
import java.util.function.Function;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import polymetron.server.budget.WorkingMemory;
import polymetron.server.problem.NotThere;

/** Programs that were uploaded for platforms. */
@Repository
public class ProgramStore {
    private final DSLContext database;

    private final WorkingMemory memory;

    public ProgramStore(DSLContext database, WorkingMemory memory) {
        this.database = database;
        this.memory = memory;
    }

    /** The programs of a platform, newest first. */
    @Transactional(readOnly = true)
    public List<Program> list(UUID platform) {
        return database.select(
                        PROGRAM.ID,
                        PROGRAM.NAME,
                        PROGRAM.SHA256,
                        DSL.field("octet_length({0})", Integer.class, PROGRAM.CONTENTS),
                        PROGRAM.UPLOADED_AT)
                .from(PROGRAM)
                .where(of(platform))
                .orderBy(PROGRAM.UPLOADED_AT.desc(), PROGRAM.ID)
                .fetch(
                        row ->
                                new Program(
                                        row.value1(),
                                        row.value2(),
                                        row.value3(),
                                        row.value4(),
                                        row.value5()));
    }

    /** Keeps a program; one with the same contents takes the new name and becomes the newest. */
    @Transactional
    public UUID add(UUID platform, String name, byte[] contents) {
        return database.insertInto(PROGRAM)
                .set(PROGRAM.ID, UUID.randomUUID())
                .set(PROGRAM.PLATFORM_ID, platform)
                .set(PROGRAM.NAME, name)
                .set(PROGRAM.SHA256, sha256(contents))
                .set(PROGRAM.CONTENTS, contents)
                .onConflict(PROGRAM.PLATFORM_ID, PROGRAM.SHA256)
                .doUpdate()
                .set(PROGRAM.NAME, name)
                .set(PROGRAM.UPLOADED_AT, DSL.currentOffsetDateTime())
                .returning(PROGRAM.ID)
                .fetchSingle(PROGRAM.ID);
    }

    /**
     * Does something with a program, when there is room for it.
     *
     * @throws NotThere when the platform has no such program
     */
    public <T> T with(UUID platform, UUID program, Function<byte[], T> work) {
        int size =
                database.select(DSL.field("octet_length({0})", Integer.class, PROGRAM.CONTENTS))
                        .from(PROGRAM)
                        .where(of(platform), PROGRAM.ID.eq(program))
                        .fetchOptional()
                        .orElseThrow(ProgramStore::notThere)
                        .value1();
        try (WorkingMemory.Lease _ = memory.take(size)) {
            return work.apply(contents(platform, program));
        }
    }

    private byte[] contents(UUID platform, UUID program) {
        return database.select(PROGRAM.CONTENTS)
                .from(PROGRAM)
                .where(of(platform), PROGRAM.ID.eq(program))
                .fetchOptional(PROGRAM.CONTENTS)
                .orElseThrow(ProgramStore::notThere);
    }

    private static NotThere notThere() {
        return new NotThere("there is no such program; drop the ELF file again");
    }

    @Transactional
    public void delete(UUID platform, UUID program) {
        database.deleteFrom(PROGRAM).where(of(platform), PROGRAM.ID.eq(program)).execute();
    }

    private static Condition of(UUID platform) {
        return PROGRAM.PLATFORM_ID.eq(platform).and(PlatformStore.isThere(platform));
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java has SHA-256", impossible);
        }
    }
}
