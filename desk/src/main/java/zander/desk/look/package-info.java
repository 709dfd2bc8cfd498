/** Fonts, colours and stylesheets. */
@NullMarked
package zander.desk.look;

import org.jspecify.annotations.NullMarked;
