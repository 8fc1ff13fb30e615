// IEEE 1800-2017 clause 21.3.3: $sformatf gives a string, $sformat and $swrite put it into one
module t;
  string s;
  initial begin
    s = $sformatf("%0d+%h", 7, 8'hA);
    $display("%s %0d", s, s.len());
    $sformat(s, "<%s>", s);
    $display(s);
    $swrite(s, "a", 3'd5);
    $display("%s", s);
  end
endmodule
//> 7+0a 4
//> <7+0a>
//> a5
