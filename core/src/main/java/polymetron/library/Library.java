package polymetron.library;

import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;

/** The block types, devices, boards and recipes that platforms are made of. Immutable. */
public final class Library {
    private final SortedMap<Vlnv, BlockType> types;

    /** The same for looking them up. */
    private final Map<Vlnv, BlockType> typesByIdentity;

    private final SortedMap<Vlnv, Board> boards;
    private final SortedMap<String, Device> devices;
    private final SortedMap<String, Recipe> recipes;
    private final SortedMap<Vlnv, SortedMap<String, String>> drivers;
    private final HardwareSources hardware;

    /**
     * @param drivers for each block type, its C driver files by name
     * @throws IllegalArgumentException when an identity occurs twice or a board names an unknown device
     */
    public Library(
            Collection<BlockType> types,
            Collection<Board> boards,
            Collection<Device> devices,
            Collection<Recipe> recipes,
            Map<Vlnv, SortedMap<String, String>> drivers) {
        this(types, boards, devices, recipes, drivers, HardwareSources.NONE);
    }

    /**
     * @param drivers for each block type, its C driver files by name
     * @param hardware Verilog of the block types, and what they share
     * @throws IllegalArgumentException when an identity occurs twice or a board names an unknown device
     */
    public Library(
            Collection<BlockType> types,
            Collection<Board> boards,
            Collection<Device> devices,
            Collection<Recipe> recipes,
            Map<Vlnv, SortedMap<String, String>> drivers,
            HardwareSources hardware) {
        this.hardware = hardware;
        this.types = index(types, BlockType::identity);
        this.typesByIdentity = Map.copyOf(this.types);
        this.boards = index(boards, Board::identity);
        this.devices = index(devices, Device::name);
        this.recipes = index(recipes, Recipe::name);
        SortedMap<Vlnv, SortedMap<String, String>> files = new TreeMap<>();
        drivers.forEach((type, each) -> files.put(type, Collections.unmodifiableSortedMap(each)));
        this.drivers = files;
        for (Board board : boards) {
            if (!this.devices.containsKey(board.device())) {
                throw new IllegalArgumentException(
                        "board %s: there is no device named %s"
                                .formatted(board.identity(), board.device()));
            }
        }
    }

    private static <K extends Comparable<K>, T> SortedMap<K, T> index(
            Collection<T> entries, Function<T, K> key) {
        SortedMap<K, T> index = new TreeMap<>();
        for (T entry : entries) {
            if (index.put(key.apply(entry), entry) != null) {
                throw new IllegalArgumentException(
                        "the library has %s twice".formatted(key.apply(entry)));
            }
        }
        return Collections.unmodifiableSortedMap(index);
    }

    /**
     * This library with more boards and recipes; one of the same name takes the place of the old one.
     *
     * @throws IllegalArgumentException when a board names an unknown device
     */
    public Library with(Collection<Board> moreBoards, Collection<Recipe> moreRecipes) {
        SortedMap<Vlnv, Board> allBoards = new TreeMap<>(boards);
        moreBoards.forEach(board -> allBoards.put(board.identity(), board));
        SortedMap<String, Recipe> allRecipes = new TreeMap<>(recipes);
        moreRecipes.forEach(recipe -> allRecipes.put(recipe.name(), recipe));
        return new Library(
                types.values(),
                allBoards.values(),
                devices.values(),
                allRecipes.values(),
                drivers,
                hardware);
    }

    /**
     * This library with another block type; one of the same identity is replaced.
     *
     * @param hardwareFiles its Verilog files by name
     * @param driverFiles its C headers by name
     */
    public Library with(
            BlockType type,
            SortedMap<String, String> hardwareFiles,
            SortedMap<String, String> driverFiles) {
        SortedMap<Vlnv, BlockType> allTypes = new TreeMap<>(types);
        allTypes.put(type.identity(), type);
        Map<Vlnv, SortedMap<String, String>> allDrivers = new TreeMap<>(drivers);
        allDrivers.put(type.identity(), driverFiles);
        return new Library(
                allTypes.values(),
                boards.values(),
                devices.values(),
                recipes.values(),
                allDrivers,
                hardware.with(type.identity(), hardwareFiles));
    }

    public Collection<BlockType> types() {
        return types.values();
    }

    public Collection<Board> boards() {
        return boards.values();
    }

    public Collection<Device> devices() {
        return devices.values();
    }

    public Collection<Recipe> recipes() {
        return recipes.values();
    }

    public Optional<BlockType> type(Vlnv identity) {
        return identity == null
                ? Optional.empty()
                : Optional.ofNullable(typesByIdentity.get(identity));
    }

    /** All versions of a block type, lowest first. */
    public List<BlockType> versionsOf(Vlnv identity) {
        return types.values().stream()
                .filter(type -> type.identity().isVersionOf(identity))
                .sorted(Comparator.comparing(BlockType::identity, Vlnv.BY_VERSION))
                .toList();
    }

    /** The newest block type that settles a difference between stream ends. */
    public Optional<BlockType> streamPart(StreamPartType.Sort sort) {
        return types.values().stream()
                .filter(type -> type.streamPart() != null && type.streamPart().sort() == sort)
                .max(Comparator.comparing(BlockType::identity, Vlnv.BY_VERSION));
    }

    public Optional<Board> board(Vlnv identity) {
        return Optional.ofNullable(boards.get(identity));
    }

    /** The device of a board, with the voltages that the board supplies. */
    public Optional<Device> deviceOf(Board board) {
        return device(board.device()).map(device -> device.supplied(board.voltages()));
    }

    public Optional<Device> device(String name) {
        return Optional.ofNullable(devices.get(name));
    }

    public Optional<Recipe> recipe(String name) {
        return Optional.ofNullable(recipes.get(name));
    }

    /** Verilog of the block types. */
    public HardwareSources hardware() {
        return hardware;
    }

    /** The C driver files of a block type, by file name. */
    public SortedMap<String, String> driverFiles(Vlnv type) {
        return drivers.getOrDefault(type, Collections.emptySortedMap());
    }
}
