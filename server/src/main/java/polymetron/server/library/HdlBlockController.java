package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import polymetron.edit.RejectedEdit;
import polymetron.ownblock.BlockFromHdl;
import polymetron.ownblock.BlockProblem;
import polymetron.ownblock.HdlProposal;
import polymetron.ownblock.OwnBlockDocument;

/** Blocks from user-supplied Verilog: the roles of its ports are proposed, and nothing is kept. */
@RestController
final class HdlBlockController {
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
        SortedMap<String, String> files = new TreeMap<>();
        for (HdlText file : given.files() == null ? List.<HdlText>of() : given.files()) {
            if (file.name() == null || file.text() == null) {
                throw new RejectedEdit("files", "each file has a name and a text");
            }
            files.put(file.name(), file.text());
        }
        BlockFromHdl found = BlockFromHdl.of(files, given.module(), "own");
        return new HdlFound(
                found.block() == null ? null : OwnBlockDocument.write(found.block()),
                found.module(),
                found.modules(),
                found.reasons(),
                found.problems());
    }
}
