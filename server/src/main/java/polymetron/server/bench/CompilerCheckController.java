package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import polymetron.bench.foreign.CompilerCheck;
import polymetron.edit.RejectedEdit;
import polymetron.library.Library;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.server.store.Libraries;

/** What compilers say of a block that is being written, before it is kept. */
@RestController
final class CompilerCheckController {
    private final BenchModels models;
    private final Libraries libraries;

    CompilerCheckController(BenchModels models, Libraries libraries) {
        this.models = models;
        this.libraries = libraries;
    }

    /**
     * @param missing why nothing was run; missing where it was
     * @param tools compilers that were run
     * @param sets sets of parameters that were tried: the defaults, and everything as low and as high as it can be
     */
    record CompiledView(
            @Nullable String missing,
            List<String> tools,
            int sets,
            List<CompilerCheck.Said> said) {}

    @PostMapping(
            value = "/api/library/blocks/compile",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    CompiledView compile(@RequestBody byte[] document) throws InterruptedException {
        OwnBlock block =
                OwnBlockDocument.read("block", new String(document, StandardCharsets.UTF_8));
        Library library = libraries.current();
        if (!OwnBlockChecks.of(block, library).isEmpty()) {
            throw new RejectedEdit("", "what is found wrong with the block comes first");
        }
        if (block.hardware().isEmpty()) {
            return nothing("There is no HDL yet.");
        }
        CompilerCheck check = models.models().compilers().orElse(null);
        if (check == null) {
            return nothing("Verilator, a C++ compiler or the sandbox is missing on this machine.");
        }
        CompilerCheck.Outcome outcome = check.of(block, library.hardware());
        return new CompiledView(null, outcome.tools(), outcome.sets(), outcome.said());
    }

    private static CompiledView nothing(String why) {
        return new CompiledView(why, List.of(), 0, List.of());
    }
}
