package polymetron.server.store;

import static polymetron.server.store.generated.Tables.LIBRARY_ENTRY;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import polymetron.board.BoardDocument;
import polymetron.json.Documents;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.library.Recipe;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockDocument;

/**
 * The library that came with the product together with what people have added. Every use looks whether another server
 * has changed anything, which is one short question to the database.
 */
@Component
public class Libraries {
    private static final String BOARD = "board";
    private static final String RECIPE = "recipe";
    private static final String BLOCK = "block";

    /**
     * What tells one state of the added boards and recipes from another.
     *
     * @param lastChange number of the last change to an entry; 0 for none
     * @param entries how many entries there are, as one that is taken out leaves no change behind
     */
    public record Edition(long lastChange, int entries) {}

    /** A library and the edition that it is made from. */
    public record Current(Library library, Edition edition) {}

    private final Library shipped = LibraryLoader.load();
    private final DSLContext database;
    private volatile Current made = new Current(shipped, new Edition(0, 0));

    public Libraries(DSLContext database) {
        this.database = database;
    }

    /** The library that came with the product. */
    public Library shipped() {
        return shipped;
    }

    /** Everything there is now. The same object as long as nothing changes. */
    @Transactional(readOnly = true)
    public Library current() {
        return currentEdition().library();
    }

    /** The same with its edition. */
    @Transactional(readOnly = true)
    public Current currentEdition() {
        var state =
                database.select(DSL.max(LIBRARY_ENTRY.CHANGE), DSL.count())
                        .from(LIBRARY_ENTRY)
                        .fetchSingle();
        Edition edition = new Edition(state.value1() == null ? 0 : state.value1(), state.value2());
        Current now = made;
        if (!now.edition().equals(edition)) {
            now = new Current(read(), edition);
            made = now;
        }
        return now;
    }

    private Library read() {
        List<Board> boards = new ArrayList<>();
        List<Recipe> recipes = new ArrayList<>();
        List<OwnBlock> blocks = new ArrayList<>();
        for (var row : database.selectFrom(LIBRARY_ENTRY).orderBy(LIBRARY_ENTRY.IDENTITY).fetch()) {
            if (row.get(LIBRARY_ENTRY.KIND).equals(BOARD)) {
                boards.add(
                        BoardDocument.readKept(
                                row.get(LIBRARY_ENTRY.IDENTITY), row.get(LIBRARY_ENTRY.DOCUMENT)));
            } else if (row.get(LIBRARY_ENTRY.KIND).equals(BLOCK)) {
                blocks.add(
                        OwnBlockDocument.readKept(
                                row.get(LIBRARY_ENTRY.IDENTITY), row.get(LIBRARY_ENTRY.DOCUMENT)));
            } else {
                recipes.add(
                        Recipe.readKept(
                                row.get(LIBRARY_ENTRY.IDENTITY), row.get(LIBRARY_ENTRY.DOCUMENT)));
            }
        }
        Library library = shipped.with(boards, recipes);
        for (OwnBlock each : blocks) {
            library = library.with(each.type(), each.hardware(), each.drivers());
        }
        return library;
    }

    @Transactional
    public void save(Board board) {
        save(BOARD, board.identity().toString(), BoardDocument.write(board));
    }

    @Transactional
    public void save(Recipe recipe) {
        save(RECIPE, recipe.name(), Documents.write(recipe));
    }

    /**
     * A user's block type.
     *
     * @param change grows with every change to it
     */
    public record KeptBlock(OwnBlock block, long change) {}

    /** All block types that people have written, in the order of their identities. */
    @Transactional(readOnly = true)
    public List<KeptBlock> blocks() {
        return database.selectFrom(LIBRARY_ENTRY)
                .where(LIBRARY_ENTRY.KIND.eq(BLOCK))
                .orderBy(LIBRARY_ENTRY.IDENTITY)
                .fetch()
                .map(
                        row ->
                                new KeptBlock(
                                        OwnBlockDocument.readKept(
                                                row.get(LIBRARY_ENTRY.IDENTITY),
                                                row.get(LIBRARY_ENTRY.DOCUMENT)),
                                        row.get(LIBRARY_ENTRY.CHANGE)));
    }

    @Transactional(readOnly = true)
    public Optional<KeptBlock> block(String identity) {
        return blocks().stream()
                .filter(each -> each.block().type().identity().toString().equals(identity))
                .findFirst();
    }

    /**
     * Keeps a block type unless it was changed meanwhile.
     *
     * @param change the change that it was made from; null for one that is new
     * @return false where it was changed, or is there already
     */
    @Transactional
    public boolean save(OwnBlock block, Long change) {
        String identity = block.type().identity().toString();
        Long now =
                database.select(LIBRARY_ENTRY.CHANGE)
                        .from(LIBRARY_ENTRY)
                        .where(LIBRARY_ENTRY.KIND.eq(BLOCK), LIBRARY_ENTRY.IDENTITY.eq(identity))
                        .forUpdate()
                        .fetchOne(LIBRARY_ENTRY.CHANGE);
        if (!java.util.Objects.equals(now, change)) {
            return false;
        }
        save(BLOCK, identity, OwnBlockDocument.write(block));
        return true;
    }

    /** Takes out an own block type; empty when there is none, as for those of the product. */
    @Transactional
    public Optional<String> removeBlock(String identity) {
        return remove(BLOCK, identity);
    }

    private void save(String kind, String identity, String document) {
        remove(kind, identity);
        database.insertInto(
                        LIBRARY_ENTRY,
                        LIBRARY_ENTRY.KIND,
                        LIBRARY_ENTRY.IDENTITY,
                        LIBRARY_ENTRY.DOCUMENT)
                .values(kind, identity, document)
                .execute();
    }

    /** Takes out an own board; empty when there is none, as for those of the product. */
    @Transactional
    public Optional<String> removeBoard(String identity) {
        return remove(BOARD, identity);
    }

    /** Takes out an own recipe; empty when there is none, as for those of the product. */
    @Transactional
    public Optional<String> removeRecipe(String name) {
        return remove(RECIPE, name);
    }

    private Optional<String> remove(String kind, String identity) {
        return database.deleteFrom(LIBRARY_ENTRY)
                                .where(
                                        LIBRARY_ENTRY.KIND.eq(kind),
                                        LIBRARY_ENTRY.IDENTITY.eq(identity))
                                .execute()
                        == 0
                ? Optional.empty()
                : Optional.of(identity);
    }
}
