// IEEE 1800-2017 clause 6.19: a case over an enumeration takes its constants
module t;
  typedef enum logic [1:0] {STOP, GO = 2} way;
  way w = GO;
  initial begin
    case (w)
      STOP: $display("stop");
      GO: $display("go %0d %b", w, w);
    endcase
    w = w.next();
    $display("%s", w.name());
  end
endmodule
//> go 2 10
//> STOP
