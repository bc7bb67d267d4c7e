package polymetron.cli.measure;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.machine.OwnModels;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.ownblock.DriverSkeleton;
import polymetron.ownblock.LogicSkeleton;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.RegisterTable;
import polymetron.software.SoftwareView;
import tools.jackson.databind.json.JsonMapper;

/**
 * Own blocks: a map of 10,000 registers beside the JSON parse of its document, and a program that hardly does anything but access
 * a block, whose model is its Verilog or the description of its registers.
 */
final class OwnBlockSpeed implements Measurement {
    private static final int REGISTERS = 10_000;
    private static final int TURNS = 200_000;
    private static final long OWN = 0x1001_0000L;
    private static final double LONGEST_SECONDS = 60;

    private final Path folder;

    OwnBlockSpeed(Path folder) {
        this.folder = folder;
    }

    @Override
    public String title() {
        return "Own blocks";
    }

    @Override
    public String measure() throws Exception {
        String table = table();
        String document = document("large", 1 << 16, RegisterTable.read(table));
        OwnBlock block = OwnBlockDocument.read("large", document);
        JsonMapper mapper = new JsonMapper();
        Repeat.Pair paste = beside(() -> RegisterTable.read(table), mapper, document);
        Repeat.Pair read = beside(() -> OwnBlockDocument.read("large", document), mapper, document);
        Repeat.Pair module = beside(() -> LogicSkeleton.of(block.type()), mapper, document);
        Repeat.Pair driver = beside(() -> DriverSkeleton.of(block.type()), mapper, document);
        return "| %s registers | time | JSON parse | ratio |%n|---|---:|---:|---:|%n"
                        .formatted(REGISTERS)
                + Machine.row("pasted as a table", paste)
                + Machine.row("document read and checked", read)
                + Machine.row("module to begin with", module)
                + Machine.row("driver to begin with", driver)
                + bench();
    }

    private static Repeat.Pair beside(
            java.util.concurrent.Callable<?> work, JsonMapper mapper, String document)
            throws Exception {
        return Repeat.inTurns(2, 3, work, () -> mapper.readTree(document));
    }

    private static String table() {
        StringBuilder rows = new StringBuilder("register,offset,field,bits,access,reset,meaning\n");
        for (int at = 0; at < REGISTERS; at++) {
            rows.append("R%s,,LOW,15:0,RW,%s,first half\n".formatted(at, at % 65_536));
            rows.append("R%s,,HIGH,31:16,RO,0,second half\n".formatted(at));
        }
        return rows.toString();
    }

    private static String document(String name, int size, String registers) {
        return """
        {
          "format": "polymetron-own-block/1",
          "definition": {
            "format": "polymetron-block-type/2", "identity": "measured:io:NAME:1.0", "kind": "peripheral",
            "title": "Measured", "summary": "A block", "description": "To measure.", "defaultName": "NAME",
            "clocks": [{ "name": "clk" }], "resets": [{ "name": "rst", "clock": "clk" }],
            "busInterfaces": [{ "name": "registers", "role": "target", "protocols": ["axi4-lite"],
              "dataWidth": 32, "size": SIZE, "usage": "registers", "executable": false }],
            "registers": REGISTERS,
            "resources": { "lookupTables": 20, "flipFlops": 20, "multipliers": 0 },
            "hardware": { "module": "measured_NAME", "files": [] },
            "software": {}
          }
        }
        """
                .replace("NAME", name)
                .replace("SIZE", Integer.toString(size))
                .replace("REGISTERS", registers);
    }

    private String bench() throws Exception {
        String registers = RegisterTable.read("register,field,bits,access\nLINES,VALUE,31:0,RW\n");
        OwnBlock bare = OwnBlockDocument.read("small", document("small", 4096, registers));
        TreeMap<String, String> files = new TreeMap<>();
        files.put(bare.type().hardware().module() + ".v", LogicSkeleton.of(bare.type()));
        OwnBlock block =
                OwnBlockDocument.read(
                        "small",
                        OwnBlockDocument.write(
                                new OwnBlock(
                                        bare.type(), bare.definition(), files, bare.drivers())));
        Library library =
                LibraryLoader.load().with(block.type(), block.hardware(), block.drivers());
        ElaboratedPlatform platform =
                new Elaborator(library)
                        .elaborate(
                                Blocks.platform(
                                        "Own",
                                        List.of(
                                                Blocks.processor("cpu"),
                                                Blocks.memory("memory", 0, 0x1_0000),
                                                Blocks.at(
                                                        Blocks.block("console", "serial:uart"),
                                                        "registers",
                                                        0x1000_0000L),
                                                Blocks.at(
                                                        Blocks.of("own", block.type().identity()),
                                                        "registers",
                                                        OWN))));
        Path program = program();
        ProgramImage image =
                ProgramImage.of(platform, ElfReader.read(Files.readAllBytes(program)), (byte) 0);
        ForeignModels models = new ForeignModels(folder.resolve("models"));
        double described = accesses(platform, image, OwnModels.NONE);
        if (!models.isPossible()) {
            return "\nThe sandbox does not work here: the bench was not measured.\n";
        }
        double verilated = accesses(platform, image, models);
        return String.format(
                Locale.ROOT,
                """

                | model of the block | thousand accesses a second | ratio |
                |---|---:|---:|
                | description of its registers | %.0f | 1 |
                | its Verilog, in a process of its own | %.0f | %s |

                The program writes a register and reads it back, %s times each, and does nothing else.
                """,
                described / 1e3,
                verilated / 1e3,
                Machine.ratio(verilated / described),
                TURNS);
    }

    private Path program() throws Exception {
        Outside.write(
                folder,
                "own.ld",
                """
                ENTRY(_start)
                SECTIONS { . = 0; .text : { *(.text*) } }
                """);
        return Outside.compile(
                folder, "own.c", "own.elf", List.of("-T", "own.ld", "-DTURNS=%s".formatted(TURNS)));
    }

    /** Accesses a second of wall time. */
    private static double accesses(
            ElaboratedPlatform platform, ProgramImage image, OwnModels models) throws Exception {
        try (var machine =
                new polymetron.bench.machine.Machine(
                        SoftwareView.of(platform), MemoryShare.ample(), models)) {
            machine.load(image);
            // Models are built before the first instruction.
            machine.run(100);
            long start = System.nanoTime();
            String said = "";
            while (said.isEmpty()) {
                if (machine.seconds() > LONGEST_SECONDS) {
                    throw new IllegalStateException("the program does not end");
                }
                machine.run(100_000);
                said =
                        new String(
                                machine.console().orElseThrow().takeSent(),
                                StandardCharsets.ISO_8859_1);
            }
            if (!said.equals("d")) {
                throw new IllegalStateException("the block does not keep what is written");
            }
            return 2e9 * TURNS / (System.nanoTime() - start);
        }
    }
}
