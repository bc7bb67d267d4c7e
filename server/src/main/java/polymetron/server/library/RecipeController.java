package polymetron.server.library;

import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import polymetron.edit.RejectedEdit;
import polymetron.library.Recipe;
import polymetron.server.problem.NotThere;
import polymetron.server.store.Libraries;
import polymetron.server.store.PlatformStore;
import polymetron.wiring.GroupRecipe;

/** Recipes that people save from the groups of their platforms. */
@RestController
final class RecipeController {
    private final Libraries libraries;
    private final PlatformStore platforms;

    RecipeController(Libraries libraries, PlatformStore platforms) {
        this.libraries = libraries;
        this.platforms = platforms;
    }

    record GroupToSave(String group, String title, @Nullable String summary) {}

    record SavedRecipe(String name) {}

    /** Saves a group of a platform as a recipe, in place of an earlier one of the same name. */
    @PostMapping("/api/platforms/{id}/recipes")
    @ResponseStatus(HttpStatus.CREATED)
    SavedRecipe save(@PathVariable UUID id, @RequestBody GroupToSave request) {
        Recipe recipe =
                GroupRecipe.of(
                        platforms.read(id).platform(),
                        request.group(),
                        request.title(),
                        request.summary());
        if (libraries.shipped().recipe(recipe.name()).isPresent()) {
            throw new RejectedEdit(
                    "title",
                    "a recipe named %s came with Polymetron; give it another title"
                            .formatted(recipe.name()));
        }
        libraries.save(recipe);
        return new SavedRecipe(recipe.name());
    }

    @DeleteMapping("/api/library/recipes/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String name) {
        libraries
                .removeRecipe(name)
                .orElseThrow(
                        () ->
                                new NotThere(
                                        "there is no own recipe %s; recipes that come with Polymetron cannot be removed"
                                                .formatted(name)));
    }
}
