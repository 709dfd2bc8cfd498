/** How a saved change takes effect on the server, and how it is taken back where it must not. */
@NullMarked
package zander.core.change.effect;

import org.jspecify.annotations.NullMarked;
