package zander.desk.look;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import java.util.List;
import javafx.application.Application;
import javafx.scene.Scene;
import javafx.scene.text.Font;

/** The look of the window: a base theme, our stylesheet over it, and one of two sets of colours. */
public final class Look {
  private static final List<String> FONTS =
      List.of(
          "HankenGrotesk_400Regular",
          "HankenGrotesk_500Medium",
          "HankenGrotesk_600SemiBold",
          "HankenGrotesk_700Bold",
          "JetBrainsMono_400Regular",
          "JetBrainsMono_400Regular_Italic",
          "JetBrainsMono_700Bold",
          "JetBrainsMono_700Bold_Italic");

  private Look() {}

  /** Loads the fonts that are shipped; once, before the first window. */
  public static void loadFonts() {
    for (String font : FONTS) {
      Font.loadFont(Look.class.getResourceAsStream("fonts/" + font + ".ttf"), 13);
    }
  }

  /** Puts the light or the dark look on a scene. */
  public static void apply(Scene scene, boolean dark) {
    Application.setUserAgentStylesheet(
        dark
            ? new PrimerDark().getUserAgentStylesheet()
            : new PrimerLight().getUserAgentStylesheet());
    scene.getStylesheets().setAll(sheet(dark ? "dark.css" : "light.css"), sheet("zander.css"));
  }

  private static String sheet(String name) {
    return Look.class.getResource(name).toExternalForm();
  }
}
