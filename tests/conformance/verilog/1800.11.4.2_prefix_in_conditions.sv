// IEEE 1800-2017 clause 11.4.2: a counter that is counted in a condition stops where it should
module t;
  int n = 0, tries = 0;
  initial begin
    do tries++; while (++n < 3 && tries < 10);
    $display("%0d %0d", n, tries);
    if (n-- == 3) $display("%0d", n);
    else $display("no");
  end
endmodule
//> 3 3
//> 2
