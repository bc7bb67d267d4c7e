package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
import polymetron.platform.LargeDocument;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import polymetron.server.store.PlatformStore;

/** Many people at one platform, each at their own block, none of them looking at the newest revision all the time. */
@ExtendWith(OneServer.class)
final class ManyEditorsTest {
    private static final int EDITORS = 20;
    private static final int EDITS = Integer.getInteger("polymetron.editors.edits", 8);

    private final RunningServer server;
    private final Map<Long, Edit> acknowledged = new ConcurrentHashMap<>();
    private final Queue<String> refused = new ConcurrentLinkedQueue<>();

    ManyEditorsTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void hardlyAnyEditIsRefusedAndTheOutcomeIsThatOfOneAfterTheOther() throws Exception {
        String id =
                server.upload(
                                "/api/platforms/import?name=large.json",
                                LargeDocument.of(40).getBytes(StandardCharsets.UTF_8))
                        .json()
                        .path("id")
                        .asString();
        List<String> blocks =
                document(id).blocks().stream()
                        .filter(block -> block.type().name().equals("gpio"))
                        .map(block -> block.name())
                        .toList();
        assertThat(blocks).hasSizeGreaterThanOrEqualTo(EDITORS);
        Platform first = document(id);
        try (var people = Executors.newFixedThreadPool(EDITORS)) {
            List<Future<?>> all = new ArrayList<>();
            for (int editor = 0; editor < EDITORS; editor++) {
                String block = blocks.get(editor);
                Random random = new Random(editor);
                all.add(people.submit(() -> edit(id, block, random)));
            }
            for (Future<?> each : all) {
                each.get();
            }
        }
        int tried = EDITORS * EDITS;
        assertThat(acknowledged.size() + refused.size()).isEqualTo(tried);
        assertThat(refused).as("of %s", tried).hasSizeLessThanOrEqualTo(tried * 2 / 100);
        // In the order of their numbers, from the beginning.
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform replayed = first;
        for (long number = 2; number <= acknowledged.size() + 1; number++) {
            replayed = editor.apply(replayed, acknowledged.get(number));
            assertThat(server.bean(PlatformStore.class).at(java.util.UUID.fromString(id), number))
                    .isEqualTo(replayed);
        }
        assertThat(document(id)).isEqualTo(replayed);
    }

    private Platform document(String id) {
        return PlatformDocument.read(
                "document", server.get("/api/platforms/" + id + "/document").text());
    }

    /** Looks at the newest revision now and then; in between builds on what this editor has made. */
    private void edit(String id, String block, Random random) {
        String path = "/api/platforms/" + id;
        long seen = 1;
        List<Long> own = new ArrayList<>();
        String name = block;
        for (int each = 0; each < EDITS; each++) {
            if (random.nextInt(4) == 0) {
                seen = server.get(path).json().path("revision").asLong();
                own.clear();
            }
            String next = block + "_" + each;
            Edit edit =
                    switch (random.nextInt(3)) {
                        case 0 -> new Edit.SetParameter(name, "WIDTH", String.valueOf(9 + each));
                        case 1 -> new Edit.RenameBlock(name, next);
                        default ->
                                new Edit.AddBlock(
                                        "with_" + next,
                                        Vlnv.parse("polymetron:io:gpio:1.0"),
                                        Map.of());
                    };
            Answer answer =
                    server.post(
                            path + "/edits",
                            new PlatformController.EditRequest(seen, List.copyOf(own), edit, null));
            if (answer.status() == 200) {
                long number = answer.json().path("revision").asLong();
                acknowledged.put(number, edit);
                own.add(number);
                name = edit instanceof Edit.RenameBlock ? next : name;
            } else {
                assertThat(answer.status())
                        .as("%s on %s and %s: %s", edit, seen, own, answer.text())
                        .isEqualTo(409);
                refused.add(answer.json().path("detail").asString());
            }
        }
    }
}
