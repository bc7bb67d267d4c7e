package polymetron.server.library;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import polymetron.board.BoardChecks;
import polymetron.board.BoardDocument;
import polymetron.board.BoardProblem;
import polymetron.edit.RejectedEdit;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.Vlnv;
import polymetron.server.api.Downloads;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;

/** Boards that people write themselves: documents in and out, checked before they are kept. */
@RestController
final class BoardController {
    private final Libraries libraries;
    private final PlatformStore platforms;

    BoardController(Libraries libraries, PlatformStore platforms) {
        this.libraries = libraries;
        this.platforms = platforms;
    }

    record SavedBoard(String identity) {}

    /** The devices that a board can have, for the form. */
    @GetMapping("/api/library/devices")
    List<DeviceChoice> devices() {
        return libraries.current().devices().stream().map(BoardController::choice).toList();
    }

    /** A device, with the pins and standards that a board on it can use. */
    record DeviceChoice(
            String name,
            String family,
            String packageName,
            List<String> standards,
            List<String> voltages,
            List<BankChoice> banks) {}

    /** A bank of pins. */
    record BankChoice(String name, String voltage, List<String> pins) {}

    private static DeviceChoice choice(Device device) {
        return new DeviceChoice(
                device.name(),
                device.family(),
                device.packageName(),
                device.standards().stream().map(Device.Standard::name).toList(),
                device.voltages(),
                device.banks().stream()
                        .map(bank -> new BankChoice(bank.name(), bank.voltage(), bank.pins()))
                        .toList());
    }

    @GetMapping(
            value = "/api/library/boards/{identity}/document",
            produces = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<String> document(@PathVariable String identity) {
        Board board =
                libraries
                        .current()
                        .board(Vlnv.parse(identity))
                        .orElseThrow(
                                () ->
                                        new NotThere(
                                                "the library has no board %s".formatted(identity)));
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        Downloads.attachment(board.identity().name() + ".json"))
                .body(BoardDocument.write(board));
    }

    @GetMapping(value = "/api/board.schema.json", produces = "application/schema+json")
    String schema() {
        return BoardDocument.schemaText();
    }

    private static Board read(byte[] document, String name) {
        return BoardDocument.read(name, new String(document, StandardCharsets.UTF_8));
    }

    /** What is wrong with a board document; an empty list for one that can be saved. */
    @PostMapping(
            value = "/api/library/boards/check",
            consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    List<BoardProblem> check(
            @RequestBody byte[] document, @RequestParam(defaultValue = "board") String name) {
        return BoardChecks.of(libraries.current(), read(document, name));
    }

    /** Keeps a board, in place of an earlier one of the same identity. */
    @PostMapping(value = "/api/library/boards", consumes = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    SavedBoard save(
            @RequestBody byte[] document, @RequestParam(defaultValue = "board") String name) {
        Board board = read(document, name);
        if (libraries.shipped().board(board.identity()).isPresent()) {
            throw new RejectedEdit(
                    "identity",
                    "%s came with Polymetron and stays as it is; give the board another identity"
                            .formatted(board.identity()));
        }
        List<BoardProblem> problems = BoardChecks.of(libraries.current(), board);
        if (!problems.isEmpty()) {
            throw new RejectedEdit(
                    problems.getFirst().at(),
                    "%s, at %s: %s%s"
                            .formatted(
                                    name,
                                    problems.getFirst().at(),
                                    problems.getFirst().what(),
                                    problems.size() == 1
                                            ? ""
                                            : "; and %s more".formatted(problems.size() - 1)));
        }
        libraries.save(board);
        return new SavedBoard(board.identity().toString());
    }

    /** Platforms that are built on a board. */
    @GetMapping("/api/library/boards/{identity}/platforms")
    List<String> users(@PathVariable String identity) {
        Vlnv board = Vlnv.parse(identity);
        return platforms.list().stream()
                .map(row -> platforms.read(row.id()).platform())
                .filter(platform -> platform.board().equals(board))
                .map(platform -> platform.name())
                .toList();
    }

    /** Takes an own board out. Platforms on it stay, and say that it is gone. */
    @DeleteMapping("/api/library/boards/{identity}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String identity) {
        libraries
                .removeBoard(identity)
                .orElseThrow(
                        () ->
                                new NotThere(
                                        "there is no own board %s; boards that come with Polymetron cannot be removed"
                                                .formatted(identity)));
    }
}
