package polymetron.server.bench;

import jakarta.annotation.Nullable;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import polymetron.address.Address;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.live.LiveBench;
import polymetron.bench.live.RegisterValue;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.bench.stream.StreamTap;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.output.Fingerprint;
import polymetron.output.image.ProgramImage;
import polymetron.server.boot.ChosenPrograms;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Elaborations;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.Program;
import polymetron.server.store.ProgramStore;
import polymetron.server.store.StoredPlatform;
import polymetron.software.Programs;

/** The simulated board of a platform. */
@RestController
final class BenchController {
    private static final int MOST_TYPED = 4096;

    private final Benches benches;
    private final PlatformStore platforms;
    private final ProgramStore programs;
    private final Elaborations elaborations;
    private final BenchModels models;
    private final CancellableWork work;

    BenchController(
            Benches benches,
            PlatformStore platforms,
            ProgramStore programs,
            Elaborations elaborations,
            BenchModels models,
            CancellableWork work) {
        this.models = models;
        this.work = work;
        this.benches = benches;
        this.platforms = platforms;
        this.programs = programs;
        this.elaborations = elaborations;
    }

    /**
     * @param processor the processor that runs it; null for the one that starts where the program begins
     * @param beside programs for further processors, which run at the same time; null for none
     * @param checked whether what is done in memory is looked at, at the cost of speed; null for not
     */
    record LoadRequest(
            UUID program,
            @Nullable String processor,
            @Nullable List<BesideRequest> beside,
            @Nullable Boolean checked) {}

    record BesideRequest(UUID program, String processor) {}

    record TypeRequest(String text) {}

    record LineRequest(int line, boolean high) {}

    record VoltageRequest(int channel, double volts) {}

    record SignalRequest(String shape) {}

    record ReceptionRequest(boolean on) {}

    record ActRequest(boolean on) {}

    record WriteRequest(String block, String register, int index, String value) {}

    record BenchView(
            boolean loaded,
            @Nullable String program,
            @Nullable String programName,
            @Nullable Long revision,
            boolean stale,
            @Nullable String mismatch,
            @Nullable String processor,
            List<String> beside,
            List<String> processors,
            List<String> blocks,
            List<String> passive,
            List<String> verilog,
            List<StreamSourceView> streams,
            @Nullable StateView state) {}

    /**
     * @param stream block and source, with a dot between
     * @param sampleBits bits of its samples; 0 where its words are no samples
     */
    record StreamSourceView(String stream, int sampleBits) {}

    /**
     * @param end words that went through it
     * @param values lowest 32 bits of the words, oldest first
     * @param ends which of them ended a packet
     */
    record StreamWordsView(long end, List<Integer> values, List<Boolean> ends) {}

    record RegisterValueView(
            String block,
            String register,
            int index,
            String address,
            int width,
            boolean isThere,
            @Nullable String value) {}

    @GetMapping("/api/platforms/{id}/bench")
    BenchView bench(@PathVariable UUID id) {
        StoredPlatform stored = platforms.read(id);
        return benches.find(id)
                .map(
                        loaded ->
                                new BenchView(
                                        true,
                                        loaded.program().toString(),
                                        loaded.programName(),
                                        loaded.revision(),
                                        !loaded.fingerprint()
                                                .equals(Fingerprint.of(elaborations.of(stored))),
                                        loaded.mismatch(),
                                        loaded.bench().processor(),
                                        loaded.bench().beside(),
                                        Programs.of(elaborations.of(stored)).names(),
                                        loaded.bench().blocksWithRegisters(),
                                        loaded.bench().passiveBlocks(),
                                        loaded.bench().verilogBlocks(),
                                        loaded.bench().streams().stream()
                                                .map(
                                                        each ->
                                                                new StreamSourceView(
                                                                        each.source().toString(),
                                                                        each.sampleBits()))
                                                .toList(),
                                        StateView.of(loaded.bench().state())))
                .orElse(
                        new BenchView(
                                false,
                                null,
                                null,
                                null,
                                false,
                                null,
                                null,
                                List.of(),
                                Programs.of(elaborations.of(stored)).names(),
                                List.of(),
                                List.of(),
                                List.of(),
                                List.of(),
                                null));
    }

    /**
     * Puts a program on a bench made from the newest revision, paused.
     *
     * @param number what it can be cancelled by while models are compiled ({@link WorkController}); missing for what cannot
     */
    @PostMapping("/api/platforms/{id}/bench")
    BenchView load(
            @PathVariable UUID id,
            @RequestBody LoadRequest request,
            @RequestParam(name = "work", required = false) @Nullable UUID number) {
        StoredPlatform stored = platforms.read(id);
        ElaboratedPlatform platform = elaborations.of(stored);
        ProgramImage image = image(id, platform, request.processor(), request.program());
        List<ProgramImage> others = new ArrayList<>();
        for (BesideRequest each :
                request.beside() == null ? List.<BesideRequest>of() : request.beside()) {
            if (each.program() == null) {
                throw new BenchException("beside: each entry names a program and a processor");
            }
            others.add(image(id, platform, each.processor(), each.program()));
        }
        String name =
                programs.list(id).stream()
                        .filter(program -> program.id().equals(request.program()))
                        .map(Program::name)
                        .findFirst()
                        .orElse("program");
        MemoryShare share = benches.share();
        Machine machine = null;
        try {
            machine = work.run(number, () -> new Machine(image.view(), share, models.models()));
            if (Boolean.TRUE.equals(request.checked())) {
                machine.checkMemory();
            }
            machine.load(image, others);
        } catch (RuntimeException failed) {
            share.close();
            if (machine != null) {
                machine.close();
            }
            throw failed;
        }
        benches.put(
                id,
                new Benches.Loaded(
                        UUID.randomUUID().toString(),
                        new LiveBench(machine, share::close),
                        stored.revision(),
                        Fingerprint.of(platform),
                        request.program(),
                        name,
                        image.mismatch()));
        return bench(id);
    }

    private ProgramImage image(
            UUID id, ElaboratedPlatform platform, @Nullable String processor, UUID program) {
        return programs.with(
                id,
                program,
                contents -> ChosenPrograms.image(platform, processor, contents, (byte) 0));
    }

    @DeleteMapping("/api/platforms/{id}/bench")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unload(@PathVariable UUID id) {
        benches.remove(id);
    }

    @PostMapping("/api/platforms/{id}/bench/{action:run|pause|step|reset}")
    StateView act(@PathVariable UUID id, @PathVariable String action) {
        LiveBench bench = running(id);
        Map<String, Runnable> actions =
                Map.of(
                        "run",
                        bench::run,
                        "pause",
                        bench::pause,
                        "step",
                        bench::step,
                        "reset",
                        bench::reset);
        actions.get(action).run();
        return StateView.of(bench.state());
    }

    @PostMapping("/api/platforms/{id}/bench/console")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void type(@PathVariable UUID id, @RequestBody TypeRequest request) {
        if (request.text() == null || request.text().length() > MOST_TYPED) {
            throw new BenchException("type at most 4096 characters at a time");
        }
        running(id).type(request.text());
    }

    @PostMapping("/api/platforms/{id}/bench/parts/{part}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void move(@PathVariable UUID id, @PathVariable String part, @RequestBody LineRequest request) {
        running(id).setLine(part, request.line(), request.high());
    }

    @PostMapping("/api/platforms/{id}/bench/parts/{part}/voltage")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void voltage(
            @PathVariable UUID id, @PathVariable String part, @RequestBody VoltageRequest request) {
        running(id).setVoltage(part, request.channel(), request.volts());
    }

    @PostMapping("/api/platforms/{id}/bench/parts/{part}/signal")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signal(
            @PathVariable UUID id, @PathVariable String part, @RequestBody SignalRequest request) {
        running(id).setSignal(part, request.shape());
    }

    /** Samples of one's own: a row for each sample, a column for each channel, whole numbers. */
    @PostMapping(
            value = "/api/platforms/{id}/bench/parts/{part}/samples",
            consumes = MediaType.TEXT_PLAIN_VALUE)
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void samples(@PathVariable UUID id, @PathVariable String part, @RequestBody String table) {
        running(id).setSamples(part, table);
    }

    @PostMapping("/api/platforms/{id}/bench/parts/{part}/reception")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void reception(
            @PathVariable UUID id,
            @PathVariable String part,
            @RequestBody ReceptionRequest request) {
        running(id).setReception(part, request.on());
    }

    /** Lets something around the board act, or not: while it does, it alone moves its parts. */
    @PostMapping("/api/platforms/{id}/bench/surroundings/{kind}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void act(@PathVariable UUID id, @PathVariable String kind, @RequestBody ActRequest request) {
        running(id).setActing(kind, request.on());
    }

    /** Words that went through a stream after so many; from the first call on they are kept, the newest 3072. */
    @GetMapping("/api/platforms/{id}/bench/streams/{block}/{source}")
    StreamWordsView stream(
            @PathVariable UUID id,
            @PathVariable String block,
            @PathVariable String source,
            @RequestParam(defaultValue = "0") long since) {
        LiveBench.Streamed streamed =
                running(id).streamSince(new InterfaceRef(block, source), since);
        return new StreamWordsView(
                streamed.end(),
                streamed.words().stream().map(StreamTap.Word::value).toList(),
                streamed.words().stream().map(StreamTap.Word::last).toList());
    }

    @GetMapping("/api/platforms/{id}/bench/registers")
    List<RegisterValueView> registers(@PathVariable UUID id, @RequestParam String block) {
        return running(id).registers(block).stream().map(BenchController::value).toList();
    }

    @PostMapping("/api/platforms/{id}/bench/registers")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void write(@PathVariable UUID id, @RequestBody WriteRequest request) {
        running(id)
                .write(request.block(), request.register(), request.index(), bits(request.value()));
    }

    private static long bits(@Nullable String value) {
        BigInteger bits =
                Optional.ofNullable(value)
                        .flatMap(Address::quantity)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "a register takes a number, such as 0x12 or 18, not"
                                                        + " '%s'".formatted(value)));
        if (bits.bitLength() > 64) {
            throw new BenchException(
                    "%s needs %s bits; a register has at most 64"
                            .formatted(value, bits.bitLength()));
        }
        return bits.longValue();
    }

    @GetMapping("/api/platforms/{id}/bench/processor")
    List<String> processor(@PathVariable UUID id) {
        return running(id).processorRegisters().stream().map(Address::format).toList();
    }

    private LiveBench running(UUID id) {
        return benches.find(id)
                .map(Benches.Loaded::bench)
                .orElseThrow(() -> new NotThere("nothing is on the bench; load a program first"));
    }

    private static RegisterValueView value(RegisterValue value) {
        return new RegisterValueView(
                value.block(),
                value.register(),
                value.index(),
                Address.format(value.address()),
                value.width(),
                value.isThere(),
                value.value() == null
                        ? null
                        : ("0x%0" + value.width() / 4 + "X").formatted(value.value()));
    }
}
