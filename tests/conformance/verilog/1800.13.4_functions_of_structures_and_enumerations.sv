// IEEE 1800-2017 clause 13.4: what goes in and out keeps its type
module t;
  typedef enum logic [1:0] {RED, AMBER, GREEN} light;
  typedef struct packed { light now; logic [3:0] left; } state;
  function automatic state step(state s, int of = 3);
    if (s.left != 0) return '{s.now, s.left - 1};
    case (s.now)
      RED: return '{GREEN, 4'(of)};
      GREEN: return '{AMBER, 1};
      default: return '{RED, 4'(of + 1)};
    endcase
  endfunction
  state s = '{RED, 0};
  initial repeat (7) begin
    s = step(s, .of(1));
    $write(" %s%0d", s.now.name(), s.left);
  end
  final $display;
endmodule
//>  GREEN1 GREEN0 AMBER1 AMBER0 RED2 RED1 RED0
