// IEEE 1800-2017 clause 11.4.12.2: strings are joined and repeated
module t;
  string a = "ab", b; int n = 3;
  initial begin
    b = {a, "-", a}; $display("%s %0d", b, b.len());
    b = {n{"xy"}}; $display("%s", b);
    b = {a, b}; b = {b, "!"}; $display("%s", b);
    $display("%0d", {a, a} == "abab");
  end
endmodule
//> ab-ab 5
//> xyxyxy
//> abxyxyxy!
//> 1
