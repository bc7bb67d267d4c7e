package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.library.BlockType;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;

/** Every accepted edit followed by undo restores the same bytes, and redo brings them again. */
@ExtendWith(OneServer.class)
final class UndoTest {
    private static final List<String> BLOCKS = List.of("cpu", "code", "console", "lamps", "gain");

    private final RunningServer server;

    UndoTest(RunningServer server) {
        this.server = server;
    }

    private static Edit any(Random random, int number) {
        List<BlockType> types = List.copyOf(Shipped.LIBRARY.types());
        String block = BLOCKS.get(random.nextInt(BLOCKS.size()));
        return switch (random.nextInt(11)) {
            case 0 -> new Edit.RemoveBlock(block);
            case 1 -> new Edit.RenameBlock(block, "renamed" + number);
            case 2 -> new Edit.SetParameter("lamps", "WIDTH", "" + (1 + random.nextInt(32)));
            case 3 -> new Edit.Group("group" + random.nextInt(2), List.of(block));
            case 4 -> new Edit.Ungroup("group" + random.nextInt(2));
            case 5 ->
                    new Edit.Attach(
                            block,
                            "registers",
                            "system",
                            new Address(random.nextInt() & 0xFFFF_F000L),
                            random.nextBoolean());
            case 6 -> new Edit.Detach(block, "registers");
            case 7 -> new Edit.DisconnectInterrupt(block, "irq");
            case 8 -> new Edit.Unbind(block, "lines");
            case 9 -> new Edit.RenamePlatform("Name " + number);
            default ->
                    new Edit.AddBlock(
                            "new" + number,
                            types.get(random.nextInt(types.size())).identity(),
                            Map.of());
        };
    }

    private String document(String id) {
        return server.get("/api/platforms/" + id + "/document").text();
    }

    @RepeatedTest(4)
    void everyEditIsTakenBackToTheByte(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        String id = server.create("Undone", "station");
        List<String> documents = new ArrayList<>(List.of(document(id)));
        long revision = 1;
        for (int number = 0; number < 40; number++) {
            Answer answer =
                    server.post(
                            "/api/platforms/" + id + "/edits",
                            new PlatformController.EditRequest(
                                    revision, null, any(random, number), null));
            if (answer.status() == 200) {
                long made = answer.json().path("revision").asLong();
                if (made > revision) {
                    documents.add(document(id));
                }
                revision = made;
            } else {
                assertThat(answer.status()).as(answer.text()).isEqualTo(422);
                assertThat(document(id)).isEqualTo(documents.getLast());
            }
        }
        assertThat(documents).hasSizeGreaterThan(8);
        for (int at = documents.size() - 2; at >= 0; at--) {
            revision = step(id, "undo", revision);
            assertThat(document(id)).isEqualTo(documents.get(at));
        }
        for (int at = 1; at < documents.size(); at++) {
            revision = step(id, "redo", revision);
            assertThat(document(id)).isEqualTo(documents.get(at));
        }
    }

    private long step(String id, String which, long revision) {
        return server.post("/api/platforms/" + id + "/" + which, Map.of("revision", revision))
                .json()
                .path("revision")
                .asLong();
    }

    /** An answer that got lost, and an edit that is sent again with its number: it is made once, whatever came between. */
    @Test
    void anEditThatIsSentAgainIsMadeOnce() {
        String id = server.create("Sent twice", "station");
        String path = "/api/platforms/" + id;
        UUID number = UUID.randomUUID();
        var add =
                new PlatformController.EditRequest(
                        1, null, new Edit.AddBlock("more", Shipped.GPIO, Map.of()), number);
        assertThat(server.post(path + "/edits", add).json().path("revision").asLong()).isEqualTo(2);
        var other =
                new PlatformController.EditRequest(2, null, new Edit.RemoveBlock("lamps"), null);
        assertThat(server.post(path + "/edits", other).status()).isEqualTo(200);
        Answer again = server.post(path + "/edits", add);
        assertThat(again.status()).isEqualTo(200);
        assertThat(again.json().path("revision").asLong()).isEqualTo(2);
        assertThat(server.get(path).json().path("revision").asLong()).isEqualTo(3);
        // The same number on another platform is another edit.
        String second = server.create("Sent elsewhere", "station");
        assertThat(
                        server.post("/api/platforms/" + second + "/edits", add)
                                .json()
                                .path("revision")
                                .asLong())
                .isEqualTo(2);
    }
}
