package polymetron.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.scheduling.annotation.EnableScheduling;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;

/** The web application. */
@SpringBootApplication
@EnableScheduling
public class Application {
    public static void main(String[] arguments) {
        SpringApplication.run(Application.class, arguments);
    }

    @Bean
    Library library() {
        return LibraryLoader.load();
    }
}
