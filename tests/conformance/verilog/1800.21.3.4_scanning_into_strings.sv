// IEEE 1800-2017 clause 21.3.4: words of a text are scanned into strings, numbers beside them
module t;
  string kind, rest;
  int n, count;
  initial begin
    count = $sscanf("pump 12 and_a_rather_long_word", "%s %d %s", kind, n, rest);
    $display("%0d [%s] %0d [%s]", count, kind, n, rest);
  end
endmodule
//> 3 [pump] 12 [and_a_rather_long_word]
