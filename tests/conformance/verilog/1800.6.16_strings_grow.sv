// IEEE 1800-2017 clause 6.16: strings are joined, repeated and compared in loops
module t;
  string s;
  initial begin
    s = "";
    while (s.len() < 6) s = {s, "ab"};
    $display("%s %s", s, {3{"x"}});
    s = s.toupper();
    if (s == "ABABAB") $display("%0d", s.len());
  end
endmodule
//> ababab xxx
//> 6
