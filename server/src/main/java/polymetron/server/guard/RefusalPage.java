package polymetron.server.guard;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/** Where the web server sends what it refuses itself, such as a path into its own folders. */
@Controller
final class RefusalPage implements ErrorController {
    @RequestMapping("/error")
    void explain(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        int status = code instanceof Integer given && given >= 400 ? given : 404;
        SecurityHeaders.on(response);
        if (status >= 500) {
            Problems.write(
                    response,
                    status,
                    "A defect of Polymetron",
                    "the request was not carried out; what happened is in the server's log");
        } else if (status == 404) {
            Problems.write(response, status, "Not there", "there is nothing at this address");
        } else {
            Problems.write(
                    response,
                    status,
                    "Not understood",
                    "the web server does not carry out this request");
        }
    }
}
