package polymetron.server.store;

import static polymetron.server.store.generated.Tables.PLATFORM;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jooq.types.DayToSecond;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import polymetron.server.problem.NotThere;

/** Platforms that were removed: kept with everything for some time, then really gone. */
@Repository
public class Removed {
    /** For how long a removed platform can be brought back. */
    public static final int KEPT_DAYS = 30;

    private static final Logger LOG = LoggerFactory.getLogger(Removed.class);

    private final DSLContext database;

    public Removed(DSLContext database) {
        this.database = database;
    }

    /** A platform that is removed, and since when. */
    public record RemovedPlatform(UUID id, String name, OffsetDateTime removedAt) {}

    /** Those that can be brought back, the one removed last first. */
    @Transactional(readOnly = true)
    public List<RemovedPlatform> list() {
        return database.select(PLATFORM.ID, PLATFORM.NAME, PLATFORM.REMOVED_AT)
                .from(PLATFORM)
                .where(PLATFORM.REMOVED_AT.isNotNull())
                .orderBy(PLATFORM.REMOVED_AT.desc(), PLATFORM.ID)
                .fetch(row -> new RemovedPlatform(row.value1(), row.value2(), row.value3()));
    }

    /**
     * Brings one back with its history and its programs.
     *
     * @throws NotThere when there is none, or it is gone for good
     */
    @Transactional
    public void bringBack(UUID id) {
        Long revision =
                database.update(PLATFORM)
                        .setNull(PLATFORM.REMOVED_AT)
                        .where(PLATFORM.ID.eq(id), PLATFORM.REMOVED_AT.isNotNull())
                        .returning(PLATFORM.REVISION)
                        .fetchOptional(PLATFORM.REVISION)
                        .orElseThrow(
                                () ->
                                        new NotThere(
                                                "no such platform is among those removed in the"
                                                        + " last %s days".formatted(KEPT_DAYS)));
        database.execute("select pg_notify({0}, {1})", PlatformStore.CHANNEL, id + ":" + revision);
    }

    /** Ends what was kept long enough. */
    @Scheduled(fixedDelay = 1, initialDelay = 1, timeUnit = TimeUnit.HOURS)
    public void forget() {
        try {
            database.deleteFrom(PLATFORM)
                    .where(
                            PLATFORM.REMOVED_AT.lt(
                                    DSL.currentOffsetDateTime()
                                            .minus(DayToSecond.valueOf(KEPT_DAYS * 86_400_000.0))))
                    .execute();
        } catch (DataAccessException away) {
            LOG.info("removed platforms are looked at again in an hour: {}", away.getMessage());
        }
    }
}
