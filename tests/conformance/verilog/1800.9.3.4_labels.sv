// IEEE 1800-2017 clause 9.3.4: a label may stand before `begin`, and its name again behind `end`
module t;
  initial begin
    first: begin
      int n = 1;
      $display("%0d", n);
    end: first
  end
endmodule
//> 1
