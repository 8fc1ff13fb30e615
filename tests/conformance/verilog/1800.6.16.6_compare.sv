// IEEE 1800-2017 clause 6.16.6: `compare` is below, at or above 0 as the strings are
module t;
  string a = "abc", b = "abd", c = "ABC";
  initial begin
    $display("%0d %0d %0d", a.compare(b) < 0, b.compare(a) > 0, a.compare("abc"));
    $display("%0d %0d", a.compare(c) == 0, a.icompare(c) == 0);
  end
endmodule
//> 1 1 0
//> 0 1
