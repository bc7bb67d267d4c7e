package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import polymetron.edit.RejectedEdit;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlReading;
import polymetron.hdl.VerilogReader;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.HdlProposal;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.ownblock.RefusedHdl;

/** Blocks from user-supplied Verilog: the roles of its ports are proposed, and nothing is kept. */
@RestController
final class HdlBlockController {
    private static final int MOST_FILES = 64;
    private static final String NAME = "[A-Za-z][A-Za-z0-9_]{0,59}\\.s?vh?";

    record HdlText(String name, String text) {}

    /**
     * @param module the one that the block is; missing for the one that no other uses
     */
    record HdlFiles(List<HdlText> files, @Nullable String module) {}

    /**
     * What was found.
     *
     * @param document a block of one's own; missing where something cannot be read
     * @param module the module that it is made from
     * @param modules all modules in the files
     * @param reasons what became of each port
     */
    record HdlFound(
            @Nullable String document,
            @Nullable String module,
            List<String> modules,
            List<HdlProposal.Reason> reasons,
            List<BlockProblem> problems) {}

    @PostMapping("/api/library/blocks/from-hdl")
    HdlFound read(@RequestBody HdlFiles given) {
        SortedMap<String, String> files = files(given.files());
        List<BlockProblem> problems = new ArrayList<>(RefusedHdl.of(files));
        HdlReading reading = VerilogReader.read(files);
        reading.problems()
                .forEach(each -> problems.add(new BlockProblem(each.place(), each.what())));
        List<String> modules = reading.modules().stream().map(HdlModule::name).toList();
        HdlModule module =
                given.module() == null
                        ? top(reading, files)
                        : reading.module(given.module()).orElse(null);
        if (module == null || !RefusedHdl.of(files).isEmpty()) {
            if (problems.isEmpty()) {
                problems.add(
                        new BlockProblem(
                                "",
                                modules.isEmpty()
                                        ? "there is no module in the files"
                                        : "there is no module %s; there is %s"
                                                .formatted(
                                                        given.module(),
                                                        String.join(", ", modules))));
            }
            return new HdlFound(null, null, modules, List.of(), problems);
        }
        try {
            HdlProposal.Proposed proposed = HdlProposal.of(files, module, "own");
            return new HdlFound(
                    OwnBlockDocument.write(proposed.block()),
                    module.name(),
                    modules,
                    proposed.reasons(),
                    problems);
        } catch (IllegalArgumentException unknown) {
            problems.add(
                    new BlockProblem(module.file() + ":" + module.line(), unknown.getMessage()));
            return new HdlFound(null, module.name(), modules, List.of(), problems);
        }
    }

    private static SortedMap<String, String> files(@Nullable List<HdlText> given) {
        if (given == null || given.isEmpty() || given.size() > MOST_FILES) {
            throw new RejectedEdit("files", "send 1 to %s files".formatted(MOST_FILES));
        }
        SortedMap<String, String> files = new TreeMap<>();
        for (HdlText file : given) {
            if (file.name() == null || !file.name().matches(NAME)) {
                throw new RejectedEdit(
                        "files",
                        "'%s' is no name of a Verilog file: letters, digits and underscores, then .v, .vh, .sv or .svh"
                                .formatted(file.name()));
            }
            if (file.text() == null || file.text().length() > OwnBlockDocument.LONGEST_FILE) {
                throw new RejectedEdit("files", "%s is longer than 1 MiB".formatted(file.name()));
            }
            files.put(file.name(), file.text());
        }
        return files;
    }

    /** The first module whose name is in no other one's file but its own. */
    private static @Nullable HdlModule top(HdlReading reading, SortedMap<String, String> files) {
        return reading.modules().stream()
                .filter(
                        each ->
                                reading.modules().stream()
                                        .filter(other -> other != each)
                                        .noneMatch(other -> uses(files.get(other.file()), each)))
                .findFirst()
                .orElse(reading.modules().isEmpty() ? null : reading.modules().getFirst());
    }

    private static boolean uses(String text, HdlModule module) {
        return java.util.regex.Pattern.compile(
                        "\\b%s\\b\\s*(#\\s*\\(|[A-Za-z_]\\w*\\s*\\()"
                                .formatted(java.util.regex.Pattern.quote(module.name())))
                .matcher(text.replaceAll("\\bmodule\\s+\\w+", ""))
                .find();
    }
}
