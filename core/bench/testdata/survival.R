# Reads lines "set group load failed", fits every group of every set with R's survival package
# (T. M. Therneau), and writes lines of what it finds.
suppressMessages(library(survival))
d <- read.table(file("stdin"), col.names = c("set", "group", "load", "failed"))
spent <- 0
fits <- 0
for (s in unique(d$set)) {
  x <- d[d$set == s, ]
  for (g in unique(x$group)) {
    y <- x[x$group == g, ]
    km <- survfit(Surv(load, failed) ~ 1, data = y)
    for (i in which(km$n.event > 0)) cat("km", s, g, format(km$time[i], digits = 17), format(km$surv[i], digits = 17), "\n")
    if (sum(y$failed) < 2) next
    began <- proc.time()[["elapsed"]]
    fit <- survreg(Surv(load, failed) ~ 1, data = y, dist = "weibull", control = survreg.control(rel.tolerance = 1e-12))
    spent <- spent + proc.time()[["elapsed"]] - began
    fits <- fits + 1
    # Rarely its iteration runs away, beyond all bounds; started at a shape of ten it does not.
    if (!is.finite(coef(fit)[[1]]) || fit$scale < 1e-6) fit <- survreg(Surv(load, failed) ~ 1, data = y, dist = "weibull", init = c(log(max(y$load)), log(0.1)), control = survreg.control(rel.tolerance = 1e-12))
    cat("fit", s, g, format(1 / fit$scale, digits = 17), format(exp(coef(fit)[[1]]), digits = 17), format(fit$loglik[1], digits = 17), "\n")
  }
  if (length(unique(x$group)) > 1) {
    test <- survdiff(Surv(load, failed) ~ group, data = x)
    cat("rank", s, "-", format(test$chisq, digits = 17), sum(test$exp > 0) - 1, "\n")
  }
}
cat("time", "-", "-", spent, fits, "\n")
# Data sets that come with the package, as the fixtures of two published examples.
for (name in c("lung", "ovarian")) {
  y <- if (name == "lung") data.frame(time = lung$time, failed = lung$status == 2, group = lung$sex)
       else data.frame(time = ovarian$futime, failed = ovarian$fustat == 1, group = ovarian$rx)
  for (i in seq_len(nrow(y))) cat("data", name, y$group[i], y$time[i], as.integer(y$failed[i]), "\n")
}
