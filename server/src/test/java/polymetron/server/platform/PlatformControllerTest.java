package polymetron.server.platform;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.not;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.content;
import static org.springframework.test.web.servlet.result.MockMvcResultMatchers.status;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.MediaType;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import polymetron.edit.RejectedEdit;
import polymetron.server.problem.NotThere;
import polymetron.server.problem.ProblemAdvice;
import polymetron.server.problem.StaleEdit;
import polymetron.server.store.Elaborations;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.server.store.Summaries;
import polymetron.server.store.Turns;

/** How what the store says reaches the client. */
final class PlatformControllerTest {
    private final PlatformStore store = mock(PlatformStore.class);
    private final MockMvc web =
            MockMvcBuilders.standaloneSetup(
                            new PlatformController(
                                    store,
                                    mock(Elaborations.class),
                                    mock(Libraries.class),
                                    mock(Summaries.class),
                                    new Turns()))
                    .setControllerAdvice(new ProblemAdvice())
                    .build();

    @Test
    void failuresBecomeProblemDocuments() throws Exception {
        when(store.undo(any(), eq(3L)))
                .thenReturn(4L)
                .thenThrow(new DataAccessResourceFailureException("connection refused"))
                .thenThrow(new StaleEdit(7, List.of("remove lamps"), null))
                .thenThrow(new RejectedEdit("revision", "there is nothing to undo"))
                .thenThrow(new NotThere("there is no such platform"))
                .thenThrow(new IllegalStateException("secret"));
        undo(UUID.randomUUID().toString(), 200)
                .andExpect(content().string(containsString("\"revision\":4")));
        refused(503, "Storage cannot be reached");
        refused(409, "Changed meanwhile")
                .andExpect(content().string(containsString("\"meanwhile\":[\"remove lamps\"]")));
        refused(422, "Edit refused")
                .andExpect(content().string(containsString("\"field\":\"revision\"")));
        refused(404, "Not there");
        refused(500, "A defect of Polymetron")
                .andExpect(content().string(not(containsString("secret"))));
    }

    private org.springframework.test.web.servlet.ResultActions undo(String id, int code)
            throws Exception {
        return web.perform(
                        post("/api/platforms/" + id + "/undo")
                                .contentType(MediaType.APPLICATION_JSON)
                                .content("{\"revision\": 3}"))
                .andExpect(status().is(code));
    }

    private org.springframework.test.web.servlet.ResultActions refused(int code, String title)
            throws Exception {
        return undo(UUID.randomUUID().toString(), code)
                .andExpect(content().contentType("application/problem+json"))
                .andExpect(content().string(containsString("\"title\":\"" + title + "\"")))
                .andExpect(content().string(containsString("\"status\":" + code)));
    }

    @Test
    void aWrongIdentityIsNamedAndNothingIsAsked() throws Exception {
        undo("seven", 404).andExpect(content().string(containsString("\"field\":\"id\"")));
        verifyNoInteractions(store);
    }
}
