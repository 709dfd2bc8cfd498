/** How a folder is shown: the order of names, narrowing, who can reach what. */
package zander.core.listing;
