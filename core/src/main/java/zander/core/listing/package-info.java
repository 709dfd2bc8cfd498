/** How a folder is shown: the order of names, narrowing, who can reach what. */
@NullMarked
package zander.core.listing;

import org.jspecify.annotations.NullMarked;
