// IEEE 1800-2017 clause 6.16.2: a letter is put at a place, and nowhere else
module t;
  string s = "gate";
  initial begin
    s.putc(0, "l"); $display("%s", s);
    s.putc(9, "x"); $display("%s", s);
  end
endmodule
//> late
//> late
