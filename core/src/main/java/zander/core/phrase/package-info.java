/**
 * What core tells people, as types: what Zander itself found, by key and values. The sentences are
 * the window's ({@code zander/desk/words/phrase.properties}), one for each constant here.
 */
@NullMarked
package zander.core.phrase;

import org.jspecify.annotations.NullMarked;
