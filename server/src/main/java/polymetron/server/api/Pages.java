package polymetron.server.api;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Addresses inside the front end all lead to its one page. */
@Controller
final class Pages {
    @GetMapping({"/new", "/library/**", "/boards/**", "/blocks/**", "/p/**"})
    String page() {
        return "forward:/index.html";
    }
}
