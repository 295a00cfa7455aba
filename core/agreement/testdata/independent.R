# Makes independent.json: random findings of two people, with what packages of R make of them.
#   Rscript independent.R > independent.json
# Kappa and its interval are vcd's (Kappa, Fleiss-Cohen weights); ICC(2,1) and its interval psych's.
suppressMessages({library(vcd); library(psych)})
set.seed(20261201)
n4 <- function(x) sprintf("%.7f", x)
row <- function(kind, data, v) cat(sprintf('%s\n {"kind": "%s", "data": [%s],\n  "value": %s, "low": %s, "high": %s}',
  ifelse(first, "[", ","), kind, paste(apply(data, 1, function(r) sprintf("[%s]", paste(r, collapse = ","))),
  collapse = ","), n4(v[1]), n4(v[2]), n4(v[3])))
first <- TRUE
for (i in 1:30) {
  n <- sample(15:60, 1)
  truth <- sample(0:4, n, replace = TRUE)
  a <- pmin(4, pmax(0, truth + sample(-1:1, n, replace = TRUE)))
  b <- pmin(4, pmax(0, truth + sample(-2:1, n, replace = TRUE)))
  kind <- c("plain", "quadratic", "icc")[(i - 1) %% 3 + 1]
  if (kind == "icc") {
    m <- cbind(truth * 10 + round(rnorm(n, 0, 6), 1), truth * 10 + round(rnorm(n, 2, 8), 1))
    r <- suppressMessages(ICC(m, lmer = FALSE))$results[2, ]
    row(kind, m, c(r$ICC, r$`lower bound`, r$`upper bound`))
  } else {
    t <- table(factor(a, 0:4), factor(b, 0:4))
    k <- Kappa(t, weights = "Fleiss-Cohen")
    w <- if (kind == "plain") "Unweighted" else "Weighted"
    ci <- confint(k)[w, ]
    row(kind, t, c(k[[w]]["value"], ci))
  }
  first <- FALSE
}
cat("\n]\n")
