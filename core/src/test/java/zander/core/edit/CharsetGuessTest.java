package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;

/**
 * Short texts of twelve languages, in every old encoding that has their letters.
 *
 * <p>Judged: the encoding of short texts, 12 languages, 9 encodings | the text that was written |
 * more than 300
 */
class CharsetGuessTest {
  private static final List<String> ENCODINGS =
      List.of(
          "UTF-8",
          "ISO-8859-1",
          "windows-1252",
          "ISO-8859-15",
          "ISO-8859-2",
          "windows-1250",
          "windows-1251",
          "KOI8-R",
          "ISO-8859-7");

  private static final String TEXTS =
      """
      de Die Brücke am Wehr
      de Pegelstände für Äcker
      de Größe: über 3 m
      de Überlauf geöffnet, Straße gesperrt
      de # Täglich um fünf prüfen
      de Höhe über Null, gemessen in Fuß
      fr Niveau élevé à l'écluse
      fr La rivière dépasse le repère
      fr # Relevé quotidien, cinq heures
      fr Hôtel des pêcheurs, fermé
      fr Où mène ce câble ?
      fr Le cœur de la réserve
      es El río está crecido
      es Aviso: mañana lluvia
      es # Medición pública, sección 3
      es Estación número cinco
      es ¿Dónde está la compuerta?
      es Año de la inundación
      pt A estação está fechada
      pt Nível da água em São João
      pt # Medição às três
      pt Atenção: inundação
      pt O açude não está cheio
      pt Previsão para amanhã
      it Il livello è più alto
      it La città è vicina
      it # Perché misurare così presto
      it Unità di misura: metri
      it Però il ponte è chiuso
      it Già aperto giovedì
      sv Ån är översvämmad
      sv Mätvärden för våren
      sv # Körs varje månad
      sv Höjd över havet
      sv Bron är stängd på söndag
      sv Räknaren går för långsamt
      da Åen løber over
      da Målinger på øen
      da # Kør hver måned
      da Højde over havet, færge lukket
      da Måler nær søen
      da Bæk og å
      fi Joki on päällä
      fi Mittaus tänään viideltä
      fi # Sää ja vesi, yötä päivää
      fi Pato on äärimmäisen täynnä
      fi Tämä mittari ei käy
      fi Jään lähtö keväällä
      pl Poziom rzeki wysoki, źle
      pl Most zamknięty dziś
      pl # Sprawdź przepływ co godzinę
      pl Śluza żeglowna, łódź
      pl Ostrzeżenie: powódź
      pl Wody są głębokie
      cs Řeka je příliš vysoká
      cs Most je uzavřen, měření běží
      cs # Každý den v pět
      cs Hladina klesá, žádné nebezpečí
      cs Přehrada se plní
      cs Říční stráž hlásí déšť
      ru Уровень реки высокий
      ru Мост закрыт сегодня
      ru # проверять каждый час
      ru Паводок у плотины
      ru Станция не отвечает
      ru глубина = 3 метра
      el Η στάθμη του ποταμού
      el Η γέφυρα είναι κλειστή
      el # μέτρηση κάθε ώρα
      el Προσοχή: πλημμύρα
      el Ο σταθμός δεν απαντά
      el βάθος = 3 μέτρα
      de für
      fr été
      es ñandú
      pt não
      sv å
      ru да
      """;

  /** What two encodings write alike is not told apart by anybody. */
  @Test
  void theTextIsTheOneThatWasWritten() throws Exception {
    List<String> wrong = new ArrayList<>();
    int count = 0;
    for (String line : TEXTS.lines().toList()) {
      String text = line.substring(3) + "\n";
      // Their letters are letters of the west too, so that it needs somebody who reads them.
      Locale locale =
          line.matches("(pl|cs) .*") ? Locale.forLanguageTag(line.substring(0, 2)) : Locale.ENGLISH;
      for (String name : ENCODINGS) {
        Charset charset = Charset.forName(name);
        if (!charset.newEncoder().canEncode(text)) {
          continue;
        }
        count++;
        TextFile read = TextFile.decode(text.getBytes(charset), locale);
        assertThat(read.isGuessed()).isEqualTo(charset != StandardCharsets.UTF_8);
        if (!read.text().equals(text)) {
          wrong.add(line + " in " + name + " as " + read.charset() + ": " + read.text().strip());
        }
      }
    }
    assertThat(count).isGreaterThanOrEqualTo(300);
    assertThat(wrong).isEmpty();
  }

  @Test
  void theLanguageOfThePersonDecidesWhereNothingElseDoes() throws Exception {
    byte[] czech = "d\u011bti\n".getBytes(Charset.forName("ISO-8859-2"));
    assertThat(TextFile.decode(czech, Locale.forLanguageTag("cs")).text()).isEqualTo("děti\n");
    assertThat(TextFile.decode(czech, Locale.ENGLISH).text()).isEqualTo("dìti\n");
    assertThat(TextFile.decode(czech, Charset.forName("ISO-8859-2")).text()).isEqualTo("děti\n");
  }
}
